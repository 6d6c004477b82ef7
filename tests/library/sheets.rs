//! What stands where on a sheet, with which style.

use chordane::prelude::*;

const RED: [u8; 4] = [255, 0, 0, 255];
const NOTHING: [u8; 4] = [0; 4];

/// The pixels that are painted at all, as their columns and rows.
fn painted(sheet: &Sheet) -> Vec<(u32, u32)> {
    let picture = sheet.pixels().unwrap();
    let all = (0..picture.height()).flat_map(|y| (0..picture.width()).map(move |x| (x, y)));
    all.filter(|(x, y)| picture.at(*x, *y) != Some(NOTHING)).collect()
}

fn dot(x: f64, y: f64) -> Item {
    rectangle((x, y), 1.0, 1.0).fill("red")
}

#[test]
fn the_origin_is_top_left_and_y_runs_down_unless_the_sheet_says_otherwise() {
    assert_eq!(painted(&sheet(6.0, 4.0).add(dot(1.0, 2.0))), [(1, 2)]);
    assert_eq!(painted(&sheet(6.0, 4.0).centred().add(dot(1.0, 1.0))), [(4, 3)]);
    assert_eq!(painted(&sheet(6.0, 4.0).y_up().add(dot(1.0, 0.0))), [(1, 3)]);
    assert_eq!(painted(&sheet(6.0, 4.0).centred().y_up().add(dot(1.0, 1.0))), [(4, 0)]);
}

#[test]
fn positive_angles_turn_clockwise_as_seen_with_y_down() {
    let arrow = |page: Sheet| painted(&page.add(dot(1.5, -0.5).rotated(deg(90.0))));
    assert_eq!(arrow(sheet(7.0, 7.0).centred()), [(3, 5)]);
    assert_eq!(arrow(sheet(7.0, 7.0).centred().y_up()), [(3, 1)]);
}

#[test]
fn transforms_follow_one_another_in_reading_order() {
    let page = |item: Item| sheet(12.0, 12.0).add(item);
    assert_eq!(
        painted(&page(dot(1.0, 0.0).moved((1.0, 0.0)).scaled_by((3.0, 1.0)))),
        [(6, 0), (7, 0), (8, 0)]
    );
    assert_eq!(
        painted(&page(dot(1.0, 0.0).scaled_by((3.0, 1.0)).moved((1.0, 0.0)))),
        [(4, 0), (5, 0), (6, 0)]
    );
    let nested = group().add(group().add(dot(0.0, 0.0)).moved((2.0, 0.0))).moved((0.0, 3.0));
    assert_eq!(painted(&sheet(12.0, 12.0).add(nested)), [(2, 3)]);
    assert_eq!(painted(&page(dot(4.0, 4.0).rotated_about((4.0, 4.0), deg(180.0)))), [(3, 3)]);
}

#[test]
fn a_moved_path_and_a_moved_item_look_alike() {
    let kite = || {
        Path::closed([(0.0, -9.0), (6.0, -2.0), (0.0, 10.0), (-6.0, -2.0)])
            .with_hole(circle((0.0, -2.0), 2.0))
    };
    let by = |path: Path| path.rotated(deg(30.0)).moved((15.0, 14.0));
    let path_moved = sheet(30.0, 30.0).add(by(kite()).fill("red")).pixels().unwrap();
    let item_moved =
        sheet(30.0, 30.0).add(kite().fill("red").rotated(deg(30.0)).moved((15.0, 14.0))).pixels().unwrap();
    assert_eq!(path_moved, item_moved);
    // Scaling differs: an item is scaled with its stroke.
    let line = || Path::open([(0.0, 3.0), (9.0, 3.0)]);
    let thick = |item: Item| painted(&sheet(30.0, 30.0).add(item)).len();
    assert_eq!(thick(line().scaled(2.0).stroke("red", 2.0)), 18 * 2);
    assert_eq!(thick(line().stroke("red", 2.0).scaled(2.0)), 18 * 4);
}

#[test]
fn later_items_lie_over_earlier_ones() {
    let page = sheet(3.0, 1.0)
        .ground("white")
        .add(rectangle((0.0, 0.0), 2.0, 1.0).fill("blue"))
        .add(rectangle((1.0, 0.0), 1.0, 1.0).fill("red"));
    let picture = page.pixels().unwrap();
    assert_eq!([0, 1, 2].map(|x| picture.at(x, 0).unwrap()), [[0, 0, 255, 255], RED, [255; 4]]);
}

#[test]
fn style_does_not_leak_from_one_item_to_the_next() {
    let canvas = style().fill("red").stroke("blue", 3.0).cap("round").dash([2.0, 1.0]);
    let first = circle((5.0, 5.0), 3.0).styled(&canvas).opacity(0.5).fill("green");
    let second = circle((5.0, 5.0), 3.0).styled(&canvas);
    let third = circle((5.0, 5.0), 3.0).fill("red");
    assert_eq!(second.style(), &canvas);
    assert_ne!(first.style(), second.style());
    assert_eq!(third.style().stroke.as_ref().and_then(Paint::colour), None);
    assert_eq!(third.style(), circle((0.0, 0.0), 1.0).fill("red").style());
    assert_eq!(canvas.fill.as_ref().and_then(Paint::colour), Some(Colour::parse("red").unwrap()));
}

#[test]
fn the_stroke_lies_half_on_either_side_over_the_fill() {
    let picture = sheet(12.0, 12.0)
        .add(rectangle((3.0, 3.0), 6.0, 6.0).fill("red").stroke("blue", 2.0))
        .pixels()
        .unwrap();
    let blue = Some([0, 0, 255, 255]);
    assert_eq!(
        (picture.at(1, 6), picture.at(2, 6), picture.at(3, 6), picture.at(4, 6)),
        (Some(NOTHING), blue, blue, Some(RED))
    );
}

#[test]
fn choices_are_given_as_values_or_by_name() {
    let by_value = circle((0.0, 0.0), 1.0)
        .stroke("red", 1.0)
        .cap(Cap::Round)
        .join(Join::Bevel)
        .fill_rule(FillRule::EvenOdd);
    let by_name = circle((0.0, 0.0), 1.0).stroke("red", 1.0).cap("round").join("bevel").fill_rule("evenodd");
    assert_eq!((by_value.style(), by_value.path()), (by_name.style(), by_name.path()));
    assert_eq!(sheet(1.0, 1.0).unit("mm").unit, Unit::Mm);
    let told = circle((0.0, 0.0), 1.0).fill("red").join("miter").sound().unwrap_err().to_string();
    assert_eq!(told, "`join`: \"miter\" is not a join; give \"mitre\", \"round\" or \"bevel\"");
    let told = sheet(1.0, 1.0).unit("feet").svg().unwrap_err().to_string();
    assert_eq!(told, "`unit`: \"feet\" is not a unit; give \"px\", \"mm\" or \"in\"");
    let told = circle((0.0, 0.0), 1.0).stroke("red", 1.0).mitre_limit(0.5).sound().unwrap_err().to_string();
    assert_eq!(told, "`mitre_limit`: the mitre limit 0.5 is out of range; give 1 or more");
}

#[test]
fn groups_without_end_inside_one_another_are_a_fault() {
    let deep = (0..100_000).fold(group().add(dot(1.0, 1.0)), |inner, _| group().add(inner));
    let told = sheet(4.0, 4.0).add(deep).svg().unwrap_err().to_string();
    assert_eq!(told, "`add`: 201 groups inside one another are too many; give at most 200");
    let allowed = (0..199).fold(group().add(dot(1.0, 1.0)), |inner, _| group().add(inner));
    assert_eq!(painted(&sheet(4.0, 4.0).add(allowed)), [(1, 1)]);
}

#[test]
fn nothing_on_the_sheet_is_no_mistake() {
    let bare = sheet(4.0, 3.0);
    assert!(bare.svg().unwrap().ends_with("viewBox=\"0 0 4 3\">\n</svg>\n"));
    assert!(painted(&bare).is_empty());
    assert!(
        painted(&sheet(4.0, 3.0).add(group()).add(Path::empty()).add(circle((1.0, 1.0), 0.0).fill("red")))
            .is_empty()
    );
    assert!(painted(&sheet(4.0, 3.0).add(dot(0.0, 0.0).opacity(0.0))).is_empty());
    assert!(painted(&sheet(4.0, 3.0).add(dot(0.0, 0.0).fill("transparent"))).is_empty());
}

/// A slow twin of the layers: each pixel composited alone, in decimals, from the coverage of each item.
#[test]
fn nested_groups_composite_as_the_formula_says() {
    let disc = |x: f64, colour: &str| circle((x, 16.0), 9.0).fill(colour);
    let inner = group().add(disc(14.0, "rgb(255 0 0 / 80%)")).add(disc(18.0, "#00ff00")).opacity(0.6);
    let page = sheet(32.0, 32.0)
        .add(disc(10.0, "#0000ff"))
        .add(group().add(inner).add(disc(22.0, "#ffff00")).opacity(0.7));
    let picture = page.pixels().unwrap();
    let coverage = |x: f64| -> Vec<f64> {
        let alone = sheet(32.0, 32.0).add(disc(x, "black")).pixels().unwrap();
        alone.as_slice().iter().map(|pixel| f64::from(pixel[3]) / 255.0).collect()
    };
    let covers = [10.0, 14.0, 18.0, 22.0].map(coverage);
    let over = |below: [f64; 4], colour: [f64; 3], alpha: f64| {
        let rest = below[3] * (1.0 - alpha);
        let joint = alpha + rest;
        let mix = |i: usize| if joint > 0.0 { (colour[i] * alpha + below[i] * rest) / joint } else { 0.0 };
        [mix(0), mix(1), mix(2), joint]
    };
    for (i, pixel) in picture.as_slice().iter().enumerate() {
        let at = |k: usize| covers[k][i];
        let red = over([0.0; 4], [1.0, 0.0, 0.0], 0.8 * at(1));
        let inner = over(red, [0.0, 1.0, 0.0], at(2));
        let faded = over([0.0; 4], [inner[0], inner[1], inner[2]], inner[3] * 0.6);
        let outer = over(faded, [1.0, 1.0, 0.0], at(3));
        let base = over([0.0; 4], [0.0, 0.0, 1.0], at(0));
        let want = over(base, [outer[0], outer[1], outer[2]], outer[3] * 0.7);
        for channel in 0..4 {
            let got = f64::from(pixel[channel]) / 255.0;
            let seen = if channel == 3 { 1.0 } else { want[3] };
            assert!((got - want[channel]).abs() * seen < 0.02, "pixel {i}: {pixel:?}, wanted {want:?}");
        }
    }
}
