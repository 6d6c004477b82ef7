//! Layers: clips, masks, blending, effects and order, in pixels and in SVG.

use chordane::prelude::*;
use chordane::scene::Command;
use chordane::sheet::Effect;

fn disc(x: f64, y: f64, radius: f64) -> Item {
    circle((x, y), radius).fill("#c8553d")
}

fn alpha(sheet: &Sheet, x: u32, y: u32) -> u8 {
    sheet.pixels().unwrap().at(x, y).unwrap()[3]
}

#[test]
fn clips_stand_on_items_as_on_groups() {
    let window = || rectangle((20.0, 0.0), 10.0, 40.0);
    let item = sheet(60.0, 40.0).add(disc(25.0, 20.0, 15.0).clipped(window()).moved((5.0, 0.0)));
    let group =
        sheet(60.0, 40.0).add(group().add(disc(25.0, 20.0, 15.0)).clipped(window()).moved((5.0, 0.0)));
    assert_eq!(item.pixels().unwrap(), group.pixels().unwrap());
    assert_eq!((alpha(&item, 26, 20), alpha(&item, 22, 20), alpha(&item, 37, 20)), (255, 0, 0));
    let placed = item.items().next().unwrap();
    assert!(placed.clipped && !placed.plain);
    assert!(item.item_at((30.0, 20.0)).is_some() && item.item_at((18.0, 20.0)).is_none());
    let nothing = sheet(60.0, 40.0).add(disc(25.0, 20.0, 15.0).clipped(Path::empty()));
    assert_eq!(alpha(&nothing, 25, 20), 0);
}

#[test]
fn masks_show_as_far_as_they_are_bright_or_opaque() {
    let masked = |kind: MaskKind| {
        let bars = group()
            .add(rectangle((0.0, 0.0), 10.0, 20.0).fill("white"))
            .add(rectangle((10.0, 0.0), 10.0, 20.0).fill("black"))
            .add(rectangle((20.0, 0.0), 10.0, 20.0).fill("rgb(255 255 255 / 40%)"));
        let page =
            sheet(50.0, 20.0).add(rectangle((0.0, 0.0), 50.0, 20.0).fill("teal").masked_by(bars, kind));
        [5, 15, 25, 40].map(|x| alpha(&page, x, 10))
    };
    assert_eq!(masked(MaskKind::Luminance), [255, 0, 102, 0]);
    assert_eq!(masked(MaskKind::Alpha), [255, 255, 102, 0]);
}

#[test]
fn layers_in_layers_show_nothing_where_those_around_them_are_not() {
    for y in 0..70 {
        let y = f64::from(y);
        let block = |from: f64, to: f64| rectangle((10.0, y + from), 20.0, to - from);
        let clipped = || group().add(block(-9.0, 29.0).fill("white")).clipped(block(-6.0, 26.0));
        let masked = block(5.0, 15.0).fill("teal").masked_by(group().add(clipped()), "luminance");
        // What is left of a group may be less than the groups in it.
        let cut = group().add(clipped().opacity(0.5)).clipped(block(5.0, 15.0));
        for node in [group().add(masked), cut] {
            let page = sheet(40.0, 100.0).add(node);
            for at in 0..100_u32 {
                let inside = f64::from(at) >= y + 5.0 && f64::from(at) < y + 15.0;
                assert_eq!(alpha(&page, 20, at) > 0, inside, "row {at}, {y} down");
            }
        }
    }
}

#[test]
fn what_is_wrong_in_a_mask_is_told() {
    let told = |item: Item| sheet(9.0, 9.0).add(item).sound().unwrap_err().to_string();
    let bad = disc(0.0, 0.0, 5.0).masked(circle((0.0, 0.0), f64::NAN).fill("red").named("vent"));
    assert_eq!(told(bad), "\"vent\": `circle`: the radius NaN is not finite; give a finite number");
    let kind = disc(0.0, 0.0, 5.0).masked_by(disc(0.0, 0.0, 1.0), "brightness");
    assert_eq!(
        told(kind),
        "`masked_by`: \"brightness\" is not a kind of mask; give \"luminance\" or \"alpha\""
    );
    assert_eq!(
        told(disc(0.0, 0.0, 5.0).blurred(-1.0)),
        "`blurred`: the radius -1 is negative; give 0 or more"
    );
    assert!(told(disc(0.0, 0.0, 5.0).blend("overlaid")).contains("(did you mean \"overlay\"?)"));
    assert!(told(disc(0.0, 0.0, 5.0).order(f64::NAN)).contains("the order NaN is not finite"));
    assert!(told(disc(0.0, 0.0, 5.0).glow(2.0, "tael")).contains("did you mean \"teal\"?"));
    let many = (0..60).fold(disc(0.0, 0.0, 5.0), |item, _| item.blurred(1.0));
    assert!(told(many).contains("effects on one thing"));
    // A mask in a mask in a mask ..
    let deep = (0..300)
        .fold(group().add(disc(0.0, 0.0, 5.0)), |inner, _| group().add(disc(0.0, 0.0, 5.0).masked(inner)));
    let told = sheet(9.0, 9.0).add(deep).sound().unwrap_err().to_string();
    assert!(told.contains("inside one another"), "{told}");
}

#[test]
fn a_blur_sees_what_lies_outside_the_picture() {
    // A disc just outside on the left shines in; the same one in a larger picture is the same there.
    let small = sheet(40.0, 40.0).add(disc(-12.0, 20.0, 10.0).blurred(6.0)).pixels().unwrap();
    let large = sheet(200.0, 40.0).add(disc(68.0, 20.0, 10.0).blurred(6.0)).pixels().unwrap();
    assert!(small.at(0, 20).unwrap()[3] > 60);
    for x in 0..40 {
        let (a, b) = (small.at(x, 20).unwrap()[3], large.at(x + 80, 20).unwrap()[3]);
        assert!(a.abs_diff(b) <= 1, "{x}: {a} {b}");
    }
}

#[test]
fn blurs_of_nothing_little_and_much() {
    let page = |radius: f64| sheet(40.0, 40.0).add(disc(20.0, 20.0, 10.0).blurred(radius));
    assert_eq!(page(0.0).pixels().unwrap(), sheet(40.0, 40.0).add(disc(20.0, 20.0, 10.0)).pixels().unwrap());
    // So wide that next to nothing is left anywhere.
    assert!(page(10_000.0).pixels().unwrap().as_slice().iter().all(|pixel| pixel[3] == 0));
    assert!(alpha(&page(1e300), 20, 20) == 0);
    // Of two blurs the variances add up.
    let twice = sheet(80.0, 80.0).add(disc(40.0, 40.0, 15.0).blurred(3.0).blurred(4.0)).pixels().unwrap();
    let once = sheet(80.0, 80.0).add(disc(40.0, 40.0, 15.0).blurred(5.0)).pixels().unwrap();
    for (a, b) in twice.as_slice().iter().zip(once.as_slice()) {
        assert!(a[3].abs_diff(b[3]) <= 1, "{a:?} {b:?}");
    }
}

#[test]
fn effects_come_before_clips_and_opacity_after_them() {
    let shone = disc(20.0, 20.0, 8.0).glow(4.0, "gold");
    let page = sheet(40.0, 40.0).add(shone.clone().clipped(rectangle((20.0, 0.0), 20.0, 40.0)));
    assert!(alpha(&page, 30, 20) > 20 && alpha(&page, 10, 20) == 0);
    // A faded shape with a shadow does not show the shadow through itself.
    let shade = disc(20.0, 20.0, 8.0).shadow((4.0, 0.0), 0.0, "black");
    let full = sheet(40.0, 40.0).add(shade.clone()).pixels().unwrap();
    let half = sheet(40.0, 40.0).add(shade.opacity(0.5)).pixels().unwrap();
    for (full, half) in full.as_slice().iter().zip(half.as_slice()) {
        assert!(half[3].abs_diff((f64::from(full[3]) * 0.5).round() as u8) <= 1);
        assert!(full[3] < 200 || half[0].abs_diff(full[0]) <= 1);
    }
}

#[test]
fn siblings_are_drawn_by_their_order() {
    let named = |name: &str, order: f64| disc(20.0, 20.0, 8.0).named(name).order(order);
    let page = sheet(40.0, 40.0)
        .add(named("first", 1.0))
        .add(group().order(-2.5).add(named("low", 9.0)))
        .add(disc(20.0, 20.0, 2.0).named("plain"))
        .add(named("last", 1.0));
    let names: Vec<_> = page.items().filter_map(|placed| placed.item.name().map(str::to_owned)).collect();
    assert_eq!(names, ["low", "plain", "first", "last"]);
    // Other paths go to the items that they were made for.
    let small = page
        .map_paths(|placed| circle((5.0, 5.0), if placed.item.name() == Some("plain") { 1.0 } else { 3.0 }));
    let found = small.items().find(|placed| placed.item.name() == Some("plain")).unwrap();
    assert_eq!(found.item.path(), &circle((5.0, 5.0), 1.0));
    assert_eq!(page.scene().unwrap().commands().first(), Some(&Command::Push(0)));
}

#[test]
fn transforms_carry_effects_along() {
    // Turned by a quarter, the shadow lies on another side; scaled, it is as far again.
    let item = disc(0.0, 0.0, 5.0).shadow((8.0, 0.0), 0.0, "black");
    let page = sheet(80.0, 80.0).centred().add(item.rotated(deg(90.0)).scaled(2.0));
    assert!(alpha(&page, 40, 40 + 20) == 255 && alpha(&page, 40 + 20, 40) == 0);
    assert!(matches!(
        disc(0.0, 0.0, 1.0).shadow((1.0, 2.0), 3.0, "teal").compositing().effects[..],
        [Effect::Shadow { step, radius: 3.0, .. }] if step == pt(1.0, 2.0)
    ));
}

#[test]
fn a_thousand_small_layers_fade_each_for_itself() {
    let dots = (0..1000).map(|i| {
        let at = pt(f64::from(i % 40) * 50.0 + 25.0, f64::from(i / 40) * 50.0 + 25.0);
        group().add(circle(at, 9.0).fill("teal")).add(circle(at, 5.0).fill("gold")).opacity(0.5)
    });
    let picture = sheet(2000.0, 1250.0).add_all(dots).pixels().unwrap();
    for i in 0..1000 {
        let (x, y) = (i % 40 * 50 + 25, i / 40 * 50 + 25);
        assert_eq!(picture.at(x, y), Some([255, 215, 0, 128]));
        assert_eq!(picture.at(x + 7, y), Some([0, 128, 128, 128]));
        assert_eq!(picture.at(x + 12, y), Some([0; 4]));
    }
}

#[test]
fn svg_says_it_in_the_words_of_the_recommendations() {
    let item = circle((20.0, 20.0), 8.0)
        .fill("#fff6d8")
        .named("lantern")
        .glow(4.0, "gold")
        .blurred(1.0)
        .clipped(circle((20.0, 20.0), 9.0))
        .masked_by(circle((20.0, 20.0), 5.0).fill("white"), "alpha")
        .blend("screen")
        .opacity(0.5);
    let text = sheet(40.0, 40.0).add(group().add(item).isolated()).svg().unwrap();
    for part in [
        "<clipPath id=\"clip-1\"><path d=",
        "<mask id=\"mask-1\" maskUnits=\"userSpaceOnUse\" x=\"11\"",
        "style=\"mask-type:alpha\"",
        "<filter id=\"filter-1\" filterUnits=\"userSpaceOnUse\" color-interpolation-filters=\"sRGB\"",
        "<feDropShadow dx=\"0\" dy=\"0\" stdDeviation=\"4\" flood-color=\"#ffd700\"/><feGaussianBlur stdDeviation=\"1\"/>",
        "clip-path=\"url(#clip-1)\" mask=\"url(#mask-1)\" filter=\"url(#filter-1)\" style=\"mix-blend-mode:screen\"",
        "<g style=\"isolation:isolate\">",
        "opacity=\".5\"",
    ] {
        assert!(text.contains(part), "{part} in {text}");
    }
    assert_eq!(text, sheet(40.0, 40.0).add(group().add(sheet_item()).isolated()).svg().unwrap());
}

fn sheet_item() -> Item {
    circle((20.0, 20.0), 8.0)
        .fill("#fff6d8")
        .named("lantern")
        .opacity(0.5)
        .blend(BlendMode::Screen)
        .masked_by(circle((20.0, 20.0), 5.0).fill("white"), MaskKind::Alpha)
        .clipped(circle((20.0, 20.0), 9.0))
        .glow(4.0, "gold")
        .blurred(1.0)
}

/// A mask that is blurred and lies wholly elsewhere shows nothing; it was drawn on a picture without a pixel.
#[test]
fn a_blurred_mask_off_the_picture_shows_nothing() {
    let far = circle((900.0, 20.0), 8.0).fill("white").blurred(3.0);
    let page = sheet(40.0, 40.0).add(disc(20.0, 20.0, 10.0).masked(far));
    assert!(page.pixels().unwrap().as_slice().iter().all(|pixel| pixel[3] == 0));
    let nothing = sheet(40.0, 40.0).add(disc(20.0, 20.0, 10.0).masked(group().blurred(3.0)));
    assert!(nothing.pixels().unwrap().as_slice().iter().all(|pixel| pixel[3] == 0));
}

/// However a transform skews a blur, it takes no more room than the picture's sides together.
#[test]
fn a_blur_along_a_skewed_line_keeps_its_size() {
    let lean =
        disc(0.0, 0.0, 5.0).blurred(4.0).scaled_by((40.0, 0.5)).rotated(deg(70.0)).moved((150.0, 150.0));
    let picture = sheet(300.0, 300.0).add(lean).pixels().unwrap();
    assert!(picture.at(150, 150).unwrap()[3] > 40);
    let way = polar(deg(70.0), 60.0);
    let along = picture.at((150.0 + way.x) as u32, (150.0 + way.y) as u32).unwrap()[3];
    let across = picture.at((150.0 - way.y) as u32, (150.0 + way.x) as u32).unwrap()[3];
    assert!(along > 40 && across == 0, "{along} {across}");
}

#[test]
fn a_gradient_measured_on_the_sheet_stays_there_in_the_mask_of_what_is_moved() {
    let fade = linear_gradient((0.0, 0.0), (60.0, 0.0)).colours(["white", "black"]).measured("sheet");
    let square = rectangle((0.0, 0.0), 30.0, 30.0);
    let masked = square.clone().fill("teal").masked(square.fill(fade)).moved((20.0, 10.0));
    let page = sheet(60.0, 50.0).add(group().add(masked).rotated_about((30.0, 25.0), deg(90.0)));
    let back = Sheet::read_svg(page.svg().unwrap().as_bytes()).unwrap().sheet;
    let (own, read) = (page.pixels().unwrap(), back.pixels().unwrap());
    let apart = own.bytes().iter().zip(read.bytes()).map(|(a, b)| a.abs_diff(*b)).max();
    assert!(apart <= Some(2), "{apart:?} levels apart");
    // The more to the right on the sheet, the less is seen.
    assert!(alpha(&page, 22, 20) > alpha(&page, 45, 20) + 40);
}

#[test]
fn what_shines_over_a_tiles_rim_is_cut_off_on_a_contact_sheet() {
    let blank = ("blank".to_owned(), sheet(40.0, 40.0).ground("white"));
    let shining = sheet(40.0, 40.0).ground("white").add(disc(33.0, 20.0, 6.0).glow(4.0, "black"));
    let pixels = |first: &Sheet| {
        let all = contact_sheet(&[("first".to_owned(), first.clone()), blank.clone()], 2, None);
        all.pixels().unwrap()
    };
    let (plain, glowing) = (pixels(&blank.1), pixels(&shining));
    let differing = |x: u32| (0..plain.height()).any(|y| plain.at(x, y) != glowing.at(x, y));
    let last = (0..plain.width()).rev().find(|x| differing(*x));
    // 14 pixels of room, then 40 of the tile, and its rim's line.
    assert!(last.is_some_and(|last| (50..55).contains(&last)), "{last:?}");
}
