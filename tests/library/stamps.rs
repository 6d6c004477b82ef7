//! Stamps of items and groups, tapering strokes, and woven rings of what lets something show through.

use chordane::prelude::*;
use chordane::sheet::Node;

fn colours(group: &Group) -> Vec<String> {
    let colour = |node: &Node| match node {
        Node::Item(item) => {
            item.style().fill.as_ref().and_then(Paint::colour).map(Colour::hex).unwrap_or_default()
        }
        _ => String::new(),
    };
    group.nodes().iter().map(colour).collect()
}

#[test]
fn each_item_can_be_changed_before_it_is_set_down() {
    let line = Path::open([(0.0, 0.0), (100.0, 0.0)]);
    let beads = Stamp::new(circle((0.0, 0.0), 4.0).fill("white")).every(50.0);
    assert_eq!(colours(&beads.along(&line)), ["#fff"; 3]);
    let mixed =
        beads.along_with(&line, |at, bead| bead.fill(if at.share() < 0.6 { "#ff0000" } else { "#0000ff" }));
    assert_eq!(colours(&mixed), ["#f00", "#f00", "#00f"]);
    let centres: Vec<Point> = mixed.nodes().iter().map(|node| node.bounds().unwrap().centre()).collect();
    assert_eq!(centres, [pt(0.0, 0.0), pt(50.0, 0.0), pt(100.0, 0.0)]);
    assert!(beads.along(Path::empty()).nodes().is_empty());
    assert!(beads.clone().every(-1.0).along(&line).own_fault().is_some());
}

#[test]
fn groups_are_bent_item_by_item_where_they_stand() {
    let pair = group()
        .add(rectangle((-10.0, -4.0), 20.0, 2.0).fill("teal"))
        .add(rectangle((-10.0, 0.0), 20.0, 2.0).fill("white").moved((0.0, 2.0)))
        .clipped(rectangle((-10.0, -4.0), 20.0, 8.0));
    let hoop = circle((0.0, 0.0), 50.0);
    let bent = Stamp::new(pair).count(6).bent().along(&hoop);
    assert_eq!(bent.nodes().len(), 6);
    for node in bent.nodes() {
        let Node::Group(group) = node else { panic!("a group stays a group") };
        let rings: Vec<(f64, f64)> = vec![(52.0, 54.0), (46.0, 48.0)];
        for (node, (low, high)) in group.nodes().iter().zip(rings) {
            let Node::Item(item) = node else { panic!("an item stays an item") };
            for vertex in item.path().contours()[0].vertices() {
                let away = vertex.length();
                assert!((away - low).abs() < 0.02 || (away - high).abs() < 0.02, "{away}");
            }
        }
        assert!(
            group
                .compositing()
                .clip
                .as_ref()
                .is_some_and(|clip| clip.inside(node.bounds().unwrap().centre()))
        );
    }
}

#[test]
fn a_stamp_comes_out_the_same_as_its_path() {
    let dart = Path::closed([(5.0, 0.0), (-4.0, -4.0), (-4.0, 4.0)]);
    let way = start((0.0, 0.0)).cubic((60.0, 40.0), (-60.0, 80.0), (0.0, 120.0)).open();
    let stamp =
        Stamp::new(dart.clone()).every(13.0).scale(|at| 1.0 + at.share()).turn(|at| deg(90.0 * at.share()));
    let one_path = way.then(stamp.clone());
    let items = stamp.along(&way);
    assert_eq!(one_path.contours().len(), items.nodes().len());
    for (contour, node) in one_path.contours().iter().zip(items.nodes()) {
        let (a, b) = (contour.bounds(), node.bounds().unwrap());
        assert!(a.min.distance(b.min) + a.max.distance(b.max) < 1e-9);
    }
}

#[test]
fn tapers_are_as_wide_as_they_say() {
    let line = Path::open([(0.0, 0.0), (100.0, 0.0)]);
    let wave = line.then(LineStyle::new(10.0).tapered(|share| (share * std::f64::consts::PI).sin()));
    for i in 1..100 {
        let x = f64::from(i);
        let half = 5.0 * (x / 100.0 * std::f64::consts::PI).sin();
        assert!(wave.inside((x, half - 0.05)) && !wave.inside((x, half + 0.05)), "{x}");
    }
    // Nothing where the width is nothing, and a fault where it is not a number.
    assert_eq!(line.then(LineStyle::new(10.0).tapered(|_| -1.0)).area().unwrap(), 0.0);
    let fault = line.then(LineStyle::new(10.0).tapered(|share| 0.0 / (share - 2.0 - share + 2.0)));
    assert_eq!(
        fault.sound().unwrap_err().to_string(),
        "`tapered`: the width NaN is not finite; give a finite number"
    );
    assert!(line.then(Taper { tolerance: 0.0, ..LineStyle::new(10.0).tapered(|_| 1.0) }).sound().is_err());
    // A closed line has no seam.
    let hoop = circle((0.0, 0.0), 50.0).then(LineStyle::new(8.0).tapered(|_| 1.0));
    assert!((hoop.area().unwrap() - 800.0 * std::f64::consts::PI).abs() < 4.0);
}

#[test]
fn what_shows_through_is_woven_once() {
    let discs: Vec<Item> =
        (0..8).map(|i| circle(polar(turns(f64::from(i) / 8.0), 55.0), 18.0).fill("#ff000080")).collect();
    let page = sheet(200.0, 200.0).centred();
    let woven = page.clone().add(woven(discs.clone())).pixels().unwrap();
    for disc in &discs {
        let middle = disc.path().bounds().unwrap().centre() + Point::splat(100.0);
        let pixel = woven.at(middle.x as u32, middle.y as u32).unwrap();
        assert!((i32::from(pixel[3]) - 128).abs() <= 1, "{pixel:?} at {middle}");
    }
}
