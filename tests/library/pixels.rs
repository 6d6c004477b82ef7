//! What the pixel filler paints, against counting spots and against arithmetic.

use crate::coverage::{counted_coverage, drawn_coverage};
use crate::support::any_path;
use chordane::prelude::*;
use chordane::raster::DrawError;
use chordane::sheet::WriteOptions;
use proptest::prelude::*;

/// Each pixel's coverage against a count of spots: a coarse count first, and where that disagrees, as it may where
/// many edges meet, a fine one.
fn assert_counted(path: &Path, size: u32) -> Result<(), TestCaseError> {
    let drawn = drawn_coverage(path.clone().fill("black"), size);
    let sides = path.flattened(0.005);
    for (i, share) in drawn.into_iter().enumerate() {
        let (x, y) = (i as u32 % size, i as u32 / size);
        if (share - counted_coverage(&sides, x, y, 12)).abs() > 0.03 {
            let counted = counted_coverage(&sides, x, y, 200);
            prop_assert!(
                (share - counted).abs() <= 0.02,
                "pixel ({x}, {y}): drawn {share}, counted {counted}"
            );
        }
    }
    Ok(())
}

proptest! {
    #![proptest_config(crate::support::cases(120))]

    /// Contours that cross and overlap within pixels, of any kind of segment, under both rules.
    #[test]
    fn the_filler_agrees_with_counting_spots(path in any_path(10.0)) {
        assert_counted(&path, 10)?;
    }

    /// Slivers thinner than a pixel, which overlap in most of the pixels that they touch.
    #[test]
    fn slivers_that_overlap_agree_with_counting_spots(
        tips in prop::collection::vec((crate::support::point(6.0), -30.0..30.0_f64), 2..6),
        even_odd in any::<bool>(),
    ) {
        let slivers = tips.iter().fold(Path::empty(), |path, (at, angle)| {
            path.and(&Path::closed([*at, *at + polar(deg(*angle), 7.0), *at + polar(deg(*angle + 4.0), 7.0)]))
        });
        let slivers = slivers.with_fill_rule(if even_odd { FillRule::EvenOdd } else { FillRule::Nonzero });
        assert_counted(&slivers, 6)?;
    }

    /// The painted share of all pixels together is the area, exactly, for what lies inside the picture.
    #[test]
    fn coverage_adds_up_to_the_area(sides in 3_usize..40, radius in 1.0..14.0_f64, x in 15.0..25.0_f64, turn in 0.0..90.0_f64) {
        let shape = polygon((x, 20.0), sides, radius).rotated_about((x, 20.0), deg(turn));
        let sum: f64 = drawn_coverage(shape.clone().fill("black"), 40).iter().sum();
        let rim = 4.0 * radius * 0.5 / 255.0 + 0.05;
        prop_assert!((sum - shape.signed_area()).abs() < rim.max(0.3), "{sum} for {}", shape.signed_area());
    }
}

#[test]
fn two_contours_over_the_same_half_of_a_pixel_cover_half_of_it() {
    let half = rectangle((1.0, 1.0), 0.5, 1.0);
    let twice = half.clone().and(&half);
    let at_pixel = |path: Path| drawn_coverage(path.fill("black"), 3)[4];
    assert_eq!(at_pixel(half.clone()), 128.0 / 255.0);
    assert_eq!(at_pixel(twice.clone()), 128.0 / 255.0);
    assert_eq!(at_pixel(twice.with_fill_rule(FillRule::EvenOdd)), 0.0);
    // Quarters that overlap in a sixteenth.
    let crossed = rectangle((1.0, 1.0), 0.5, 0.5).and(&rectangle((1.25, 1.25), 0.5, 0.5));
    let share = |rule| (at_pixel(crossed.clone().with_fill_rule(rule)) * 255.0).round();
    assert_eq!(share(FillRule::Nonzero), (255.0_f64 * 7.0 / 16.0).round());
    assert_eq!(share(FillRule::EvenOdd), (255.0_f64 * 6.0 / 16.0).round());
}

#[test]
fn a_translucent_stroke_that_crosses_itself_is_no_darker_there() {
    let loops = start((5.0, 5.0)).line((35.0, 35.0)).line((35.0, 5.0)).line((5.0, 35.0)).open();
    for dash in [vec![], vec![9.0, 3.0]] {
        let picture = sheet(40.0, 40.0)
            .add(loops.clone().stroke("rgb(0 0 0 / 50%)", 6.0).join("round").cap("round").dash(dash))
            .pixels()
            .unwrap();
        assert_eq!(picture.as_slice().iter().map(|pixel| pixel[3]).max(), Some(128));
    }
}

#[test]
fn colours_blend_as_the_compositing_recommendation_says() {
    let half_red = rectangle((0.0, 0.0), 2.0, 1.0).fill("rgb(255 0 0 / 50%)");
    let on_white = sheet(2.0, 1.0).ground("white").add(half_red.clone()).pixels().unwrap();
    assert_eq!(on_white.at(0, 0), Some([255, 128, 128, 255]));
    let on_nothing = sheet(2.0, 1.0).add(half_red.clone()).add(half_red).pixels().unwrap();
    assert_eq!(on_nothing.at(0, 0), Some([255, 0, 0, 192]));
}

#[test]
fn a_group_fades_as_a_whole() {
    let pair = group()
        .add(rectangle((0.0, 0.0), 2.0, 2.0).fill("black"))
        .add(rectangle((1.0, 0.0), 2.0, 2.0).fill("white"))
        .opacity(0.5);
    let picture = sheet(3.0, 2.0).ground("black").add(pair).pixels().unwrap();
    assert_eq!(picture.at(0, 0), Some([0, 0, 0, 255]));
    assert_eq!(picture.at(1, 0), Some([128, 128, 128, 255]));
    let item = rectangle((1.0, 1.0), 6.0, 6.0).fill("black").stroke("black", 2.0).opacity(0.5);
    let faded = sheet(8.0, 8.0).add(item).pixels().unwrap();
    assert!(faded.as_slice().iter().all(|pixel| pixel[3] == 128));
}

#[test]
fn the_same_bytes_come_out_on_any_number_of_threads() {
    let kites = around(60).map(|a| {
        let at = pt(200.0, 150.0) + polar(a, 110.0);
        star(at, 7, 60.0, 20.0).fill("rgb(200 85 61 / 40%)").stroke("#20303c", 1.5).dash([7.0, 3.0])
    });
    let sheet = sheet(400.0, 300.0).ground("#f4efe6").add_all(kites);
    let on = |threads: usize| {
        let pool = rayon_pool(threads);
        pool.install(|| sheet.pixels().unwrap())
    };
    let one = on(1);
    assert!(one == on(2) && one == on(5));
}

fn rayon_pool(threads: usize) -> rayon::ThreadPool {
    rayon::ThreadPoolBuilder::new().num_threads(threads).build().unwrap()
}

#[test]
fn what_reaches_far_outside_is_cut_at_the_rim() {
    let far = Path::closed([(-1e8, -1e8), (1e8, -1e8), (1e8, 1e8), (-1e8, 1e8)]);
    assert!(drawn_coverage(far.clone().fill("black"), 8).iter().all(|share| *share == 1.0));
    let hole = far.with_hole(rectangle((2.0, 2.0), 4.0, 4.0));
    assert_eq!(drawn_coverage(hole.fill("black"), 8).iter().sum::<f64>(), 48.0);
    // A slanted edge keeps its slope where it is cut.
    let slant = Path::closed([(-1000.0, -1000.0), (1000.0, 1000.0), (-1000.0, 1000.0)]);
    assert_eq!(drawn_coverage(slant.fill("black"), 4)[5], 128.0 / 255.0);
    let error = circle((0.0, 0.0), 1e10).fill("black");
    assert_eq!(
        sheet(8.0, 8.0).add(error).pixels().unwrap_err().to_string(),
        "`draw`: a vertex lies at 1e10 pixels; bring it within 1e9 of the sheet"
    );
}

#[test]
fn an_item_without_paint_is_drawn_as_a_draft() {
    let sheet = sheet(20.0, 20.0).add(circle((10.0, 10.0), 6.0)).add(group().add(Path::empty()));
    assert_eq!(sheet.unpainted().len(), 1);
    assert!(sheet.pixels().unwrap().as_slice().iter().any(|pixel| pixel[3] > 200));
    assert!(sheet.svg().unwrap().contains("vector-effect"));
}

#[test]
fn sizes_are_checked_before_anything_is_made() {
    let too_large = sheet(20_000.0, 10.0);
    assert_eq!(
        too_large.pixels().unwrap_err().to_string(),
        "a picture of 20000 x 10 pixels is too large; the limit is 16384 x 16384: \
         make the sheet smaller, ask for another size, or raise the limit"
    );
    assert!(too_large.pixels_with(&WriteOptions { max_side: 20_000, ..WriteOptions::default() }).is_ok());
    assert_eq!(
        sheet(0.0, 10.0).pixels().unwrap_err().to_string(),
        "`sheet`: the width 0 is not positive; give more than 0"
    );
    assert!(sheet(f64::NAN, 10.0).svg().is_err());
    let inch = sheet(1.0, 0.5).unit("in").pixels().unwrap();
    assert_eq!((inch.width(), inch.height()), (96, 48));
    let fitted = sheet(10.0, 10.0).ground("red").pixels_with(&WriteOptions::sized(30, 20)).unwrap();
    assert_eq!((fitted.width(), fitted.height()), (30, 20));
    assert_eq!(fitted.at(0, 0), Some([255, 0, 0, 255]));
}

#[test]
fn a_png_holds_the_same_pixels() {
    let picture = sheet(9.0, 7.0).add(circle((4.0, 3.0), 3.3).fill("rgb(10 200 30 / 60%)")).pixels().unwrap();
    let bytes = picture.png().unwrap();
    let mut reader = png::Decoder::new(std::io::Cursor::new(&bytes)).read_info().unwrap();
    let mut back = vec![0; reader.output_buffer_size().unwrap()];
    reader.next_frame(&mut back).unwrap();
    assert_eq!(back, picture.bytes());
}

#[test]
fn a_picture_without_a_pixel_is_refused_everywhere() {
    let page = sheet(9.0, 7.0).add(circle((4.0, 3.0), 3.3).fill("teal"));
    for (width, height) in [(0, 4), (4, 0), (0, 0)] {
        let none = DrawError::NoPixels { width, height };
        assert_eq!(
            none.to_string(),
            format!("a picture of {width} x {height} pixels has no pixels; give at least 1 x 1")
        );
        assert_eq!(Pixels::new(width, height).unwrap_err(), none);
        assert_eq!(page.pixels_with(&WriteOptions::sized(width, height)).unwrap_err(), none);
        for format in Format::stills() {
            assert!(page.written(format, &WriteOptions::sized(width, height)).is_err(), "{format:?}");
        }
        let bones = page.bones(&BonesOptions::default().size(width, height)).unwrap_err();
        assert!(bones.to_string().contains("in pixels 0 is not positive; give more than 0"), "{bones}");
    }
}

/// The greatest difference of two pictures, in levels.
fn apart(a: &Pixels, b: &Pixels) -> u8 {
    let channels = a.bytes().iter().zip(b.bytes());
    channels.map(|(a, b)| a.abs_diff(*b)).max().unwrap_or(0)
}

fn drawn_alone(path: &Path, width: f64, height: f64) -> Pixels {
    sheet(width, height).add(path.clone().fill("black")).pixels().unwrap()
}

proptest! {
    #![proptest_config(crate::support::cases(300))]

    /// Small convex polygons go a short way of their own: it must not show. A speck elsewhere sends the same polygon
    /// the long way.
    #[test]
    fn small_convex_shapes_look_the_same_either_way(
        sides in 3_usize..30, radius in 0.2..30.0_f64, x in -10.0..50.0_f64, y in -10.0..50.0_f64, turn in 0.0..120.0_f64,
    ) {
        let shape = polygon((x, y), sides, radius).rotated_about((x, y), deg(turn));
        let speck = rectangle((60.2, 60.2), 0.1, 0.1);
        let (short, long) = (drawn_alone(&shape, 64.0, 64.0), drawn_alone(&shape.clone().and(&speck), 64.0, 64.0));
        let same = short.as_slice().iter().zip(long.as_slice()).take(60 * 64);
        for (i, (a, b)) in same.enumerate() {
            prop_assert!(a[3].abs_diff(b[3]) <= 1, "pixel ({}, {}): {} and {}", i % 64, i / 64, a[3], b[3]);
        }
    }

    /// A picture is the same when it is drawn in parts: what is left of, above and below a window does not matter.
    #[test]
    fn a_window_shows_what_the_whole_shows(path in any_path(40.0), left in 0..20_i32, top in 0..20_i32) {
        let whole = drawn_alone(&path, 40.0, 40.0);
        let step = pt(f64::from(-left), f64::from(-top));
        let window = drawn_alone(&path.moved(step), 16.0, 16.0);
        for y in 0..16 {
            for x in 0..16 {
                let (a, b) = (window.at(x, y).unwrap()[3], whole.at(x + left as u32, y + top as u32).unwrap()[3]);
                // Chords of curves begin at the same places, but cut at another rim; that moves nothing visible.
                prop_assert!(a.abs_diff(b) <= 2, "({x}, {y}): {a} and {b}");
            }
        }
    }

    /// Turning every contour round changes nothing that is painted, but for where the chords of curves lie: within a
    /// hundredth of a pixel on either side, which is five levels.
    #[test]
    fn directions_do_not_matter_when_all_are_turned(path in any_path(20.0)) {
        let (there, back) = (drawn_alone(&path, 20.0, 20.0), drawn_alone(&path.reversed(), 20.0, 20.0));
        prop_assert!(apart(&there, &back) <= 6, "{}", apart(&there, &back));
    }

    /// Under the even-odd rule, a contour drawn twice is not there.
    #[test]
    fn a_contour_drawn_twice_cancels_under_even_odd(path in any_path(12.0)) {
        let twice = path.clone().and(&path).with_fill_rule(FillRule::EvenOdd);
        prop_assert!(drawn_coverage(twice.fill("black"), 12).iter().all(|share| *share < 0.01));
    }
}

/// Two contours that both reach beyond the picture's corner: where the first ended on the corner and the second began
/// there, the second lost its corner, and a wedge was painted beside it.
#[test]
fn contours_cut_at_the_same_corner_keep_it() {
    let line = Path::closed([(19.9, 17.0), (-8.0, -1.0)]);
    let beyond = Path::closed([(13.4, 25.0), (30.0, 30.0), (22.3, 15.3)]);
    assert!(drawn_coverage(line.and(&beyond).fill("black"), 16).iter().all(|share| *share == 0.0));
}

/// Hundreds of slivers over the same few pixels: more than are cut at every crossing, so that even strips stand in.
#[test]
fn very_many_overlaps_in_a_row_stay_close_to_the_truth() {
    let slivers = (0..300).fold(Path::empty(), |path, i| {
        let at = pt(0.2 + f64::from(i % 17) * 0.33, 0.1 + f64::from(i % 23) * 0.2);
        let lean = polar(deg(f64::from(i) * 7.3), 3.0);
        path.and(&Path::closed([at, at + lean, at + lean + pt(0.02, 0.05)]))
    });
    for rule in [FillRule::Nonzero, FillRule::EvenOdd] {
        let slivers = slivers.clone().with_fill_rule(rule);
        let drawn = drawn_coverage(slivers.clone().fill("black"), 6);
        for (i, share) in drawn.into_iter().enumerate() {
            let counted = counted_coverage(&slivers, i as u32 % 6, i as u32 / 6, 30);
            assert!((share - counted).abs() < 0.05, "pixel {i}: drawn {share}, counted {counted}");
        }
    }
}

/// A shape of thousands of edges over many bands, whose edges are sorted beforehand.
#[test]
fn large_shapes_agree_with_counting_spots() {
    let comb = star((150.0, 150.0), 900, 149.0, 60.0).and(&star((150.0, 150.0), 350, 100.0, 20.0).reversed());
    let picture = drawn_alone(&comb, 300.0, 300.0);
    let mut checked = 0;
    for y in (1..300).step_by(23) {
        for x in (0..300).step_by(17) {
            let share = f64::from(picture.at(x, y).unwrap()[3]) / 255.0;
            let counted = counted_coverage(&comb, x, y, 12);
            assert!((share - counted).abs() < 0.12, "({x}, {y}): drawn {share}, counted {counted}");
            checked += 1;
        }
    }
    assert!(checked > 200);
}

#[test]
fn translucent_colours_keep_their_share_over_any_ground() {
    let veil = |alpha: u32| rectangle((0.0, 0.0), 1.0, 1.0).fill(format!("rgb(0 0 0 / {alpha}%)"));
    for alpha in [0, 1, 10, 50, 99, 100] {
        let over_white = sheet(1.0, 1.0).ground("white").add(veil(alpha)).pixels().unwrap();
        let want = (255.0 * (1.0 - f64::from(alpha) / 100.0)).round() as u8;
        let [red, _, _, opacity] = over_white.at(0, 0).unwrap();
        assert!(red.abs_diff(want) <= 1 && opacity == 255, "{alpha}: {red}, wanted {want}");
        let over_nothing = sheet(1.0, 1.0).add(veil(alpha)).pixels().unwrap();
        let want = (f64::from(alpha) * 2.55).round() as u8;
        assert!(over_nothing.at(0, 0).unwrap()[3].abs_diff(want) <= 1, "{alpha}");
    }
}

#[test]
fn pictures_are_drawn_over_what_is_there() {
    let mut picture = Pixels::new(4, 1).unwrap();
    picture.as_mut_slice().fill([0, 0, 255, 255]);
    picture.draw(&sheet(4.0, 1.0).add(rectangle((1.0, 0.0), 1.5, 1.0).fill("red"))).unwrap();
    assert_eq!(
        picture.as_slice(),
        [[0, 0, 255, 255], [255, 0, 0, 255], [128, 0, 128, 255], [0, 0, 255, 255]]
    );
    // A fault leaves the picture as it was.
    let before = picture.clone();
    assert!(picture.draw(&sheet(4.0, 1.0).ground("white").add(circle((0.0, 0.0), -1.0))).is_err());
    assert_eq!(picture, before);
    assert_eq!((picture.at(4, 0), picture.at(0, 1)), (None, None));
}

/// Of ten positions on the way, all look alike on a coarse grid when they are snapped; as they come, hardly two do. Measured by the pixels that
/// differ when pictures are laid on one another at the nearest whole step.
#[test]
fn what_is_snapped_does_not_flicker() {
    let flicker = |snapped: bool| {
        let shots: Vec<(i32, Pixels)> = (0..10)
            .map(|i| {
                let kite =
                    polygon((0.0, 0.0), 4, 6.2).fill("#c8553d").moved((10.0 + 2.3 * f64::from(i), 14.2));
                let kite = if snapped { kite.snapped(1.0) } else { kite };
                let left = (0..48).find(|x| row(&kite, *x)).unwrap_or(0);
                (left, shot(&kite))
            })
            .collect();
        let (begin, first) = &shots[0];
        let differing = |(left, other): &(i32, Pixels)| {
            let at = |picture: &Pixels, x: i32, y: u32| u32::try_from(x).ok().and_then(|x| picture.at(x, y));
            (-8..40)
                .flat_map(|x| (0..28).map(move |y| (x, y)))
                .filter(|&(x, y)| {
                    let pair = (at(first, begin + x, y), at(other, left + x, y));
                    pair.0.unwrap_or([0; 4]) != pair.1.unwrap_or([0; 4])
                })
                .count()
        };
        shots.iter().map(differing).sum::<usize>()
    };
    assert_eq!(flicker(true), 0);
    assert!(flicker(false) > 20);
}

fn shot(kite: &Item) -> Pixels {
    let page = sheet(48.0, 28.0).add(kite.clone());
    page.pixels_with(&WriteOptions { antialias: false, ..WriteOptions::default() }).unwrap()
}

fn row(kite: &Item, x: i32) -> bool {
    let picture = shot(kite);
    (0..28).any(|y| picture.at(x as u32, y).is_some_and(|pixel| pixel[3] > 0))
}

/// The slow twin of drawing without partial pixels: every pixel's middle is asked whether it is inside.
#[test]
fn whole_pixels_are_those_whose_middle_is_inside() {
    let shapes = [
        star_polygon(pt(20.0, 15.0), 5, 2, 14.0),
        star_polygon(pt(20.0, 15.0), 7, 3, 14.0).with_fill_rule(FillRule::EvenOdd),
        ring((20.3, 15.1), 13.0, 6.0),
        polygon(pt(20.2, 14.7), 3, 9.0),
    ];
    for shape in shapes {
        let page = sheet(40.0, 30.0).add(shape.clone().fill("teal"));
        let picture =
            page.pixels_with(&WriteOptions { antialias: false, ..WriteOptions::default() }).unwrap();
        let survey = shape.survey().unwrap();
        for (i, pixel) in picture.as_slice().iter().enumerate() {
            let middle = pt((i % 40) as f64 + 0.5, (i / 40) as f64 + 0.5);
            let near = survey.nearest(middle).is_some_and(|station| station.point().distance(middle) < 0.02);
            let want = if shape.inside(middle) { [0, 128, 128, 255] } else { [0; 4] };
            assert!(near || *pixel == want, "{middle}: {pixel:?}");
        }
    }
}

/// A hundred thin coats come out as they should to within a level: they are rounded once, not each time.
#[test]
fn many_coats_are_rounded_once() {
    let coats = (0..100).map(|i| {
        let colour = if i % 2 == 0 { "rgb(255 0 0 / 3%)" } else { "rgb(0 80 255 / 3%)" };
        rectangle((0.0, 0.0), 8.0, 8.0).fill(colour)
    });
    let given = sheet(8.0, 8.0).ground("white").add_all(coats).pixels().unwrap().at(4, 4).unwrap();
    let mut want = [255.0, 255.0, 255.0];
    for i in 0..100 {
        let coat = if i % 2 == 0 { [255.0, 0.0, 0.0] } else { [0.0, 80.0, 255.0] };
        want = std::array::from_fn(|c| want[c] * 0.97 + coat[c] * 0.03);
    }
    for (given, want) in given.iter().zip(want) {
        assert!((f64::from(*given) - want).abs() < 1.0, "{given} {want}");
    }
}
