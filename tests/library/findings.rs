//! Every finding: where it fires, and where it must not.

use std::f64::consts::PI;

use crate::support::any_path;
use chordane::check::{Code, Finding, Level};
use chordane::measure::Direction;
use chordane::number::Cell;
use chordane::prelude::*;
use chordane::sheet::Node;
use proptest::prelude::*;

fn page() -> Sheet {
    sheet(200.0, 160.0)
}

fn findings(sheet: &Sheet) -> Vec<Finding> {
    sheet.check().unwrap().findings
}

/// The codes of what is found on a sheet of these items.
fn codes<N: Into<Node>>(items: impl IntoIterator<Item = N>) -> Vec<&'static str> {
    findings(&page().add_all(items)).iter().map(|finding| finding.code.name()).collect()
}

/// The one finding of an item.
fn only(item: impl Into<Node>) -> Finding {
    let mut all = findings(&page().add(item));
    assert_eq!(all.len(), 1, "{all:?}");
    all.remove(0)
}

fn nothing(what: &str, item: impl Into<Node>) {
    assert_eq!(codes([item]), [] as [&str; 0], "{what}");
}

fn kite() -> Path {
    Path::closed([(100.0, 20.0), (150.0, 70.0), (100.0, 140.0), (50.0, 70.0)])
}

#[test]
fn open_outline() {
    let open = Path::open([(20.0, 20.0), (90.0, 20.0), (50.0, 90.0)]);
    let found = only(open.clone().fill("teal").stroke("black", 2.0).named("sail"));
    assert_eq!((found.code, found.level, found.at), (Code::OpenOutline, Level::Warning, pt(50.0, 90.0)));
    assert_eq!(
        found.message,
        "\"sail\": the outline is open: it is filled, but its last side, from (50, 90) to (20, 20), is not stroked"
    );
    assert_eq!(found.mend, "end it with close() instead of open(), or call close() on the path");
    let back = Path::open([(20.0, 20.0), (90.0, 20.0), (50.0, 90.0), (20.0, 20.0)]);
    assert!(only(back.stroke("black", 2.0)).message.contains("caps where a corner should be"));
    let ring = between(deg(0.0), deg(355.0), 72).map(|a| polar(a, 50.0) + pt(100.0, 80.0));
    let gap = Path::open(ring).stroke("black", 1.0);
    assert!(codes([gap.clone()]).is_empty(), "a gap of five degrees is seen, and may be meant");
    let nearly = start((150.0, 80.0)).arc_about((100.0, 80.0), deg(359.0)).open().stroke("black", 1.0);
    assert!(only(nearly).message.contains("short of where it began"));
    nothing("a line", open.clone().stroke("black", 2.0));
    nothing("an area that is closed by filling", open.fill("teal"));
    nothing("a closed outline", kite().fill("teal").stroke("black", 2.0));
    nothing("one side", Path::open([(20.0, 20.0), (90.0, 20.0)]).fill("teal").stroke("black", 2.0));
}

#[test]
fn doubled_end() {
    let twice = Path::from_data("M20 20H90L50 90L20 20Z").unwrap().fill("teal");
    let found = only(twice);
    assert_eq!((found.code, found.level, found.at), (Code::DoubledEnd, Level::Hint, pt(20.0, 20.0)));
    let nearly = Path::closed([(20.0, 20.0), (90.0, 20.0), (50.0, 90.0), (20.001, 20.0)]).fill("teal");
    assert_eq!((only(nearly.clone()).code, only(nearly).level), (Code::DoubledEnd, Level::Warning));
    let points = [(20.0, 20.0), (90.0, 20.0), (50.0, 90.0)];
    let all = points.into_iter().chain([(20.0 + 1e-13, 20.0)]);
    let closed = Path::closed(all.clone());
    assert_eq!(closed, Path::closed(points), "the last one is the first one but for rounding");
    assert_eq!(Path::open(all).close(), closed);
    nothing("one that comes round by rounding", closed.fill("teal"));
    nothing("a circle ends where it began", circle((100.0, 80.0), 30.0).fill("teal"));
    nothing("a smooth curve too", through([(20.0, 20.0), (90.0, 20.0), (50.0, 90.0)]).close().fill("teal"));
    nothing("a kite", kite().fill("teal"));
}

#[test]
fn unpainted() {
    assert_eq!(only(kite()).code, Code::Unpainted);
    assert_eq!(only(kite().fill("transparent")).code, Code::Unpainted);
    assert_eq!(only(kite().stroke("red", 0.0)).code, Code::Unpainted);
    assert_eq!(only(kite().fill("red").opacity(0.0)).code, Code::Unpainted);
    nothing("a fill", kite().fill("rgb(0 0 0 / 1%)"));
    nothing("a stroke", kite().stroke("red", 0.5));
    nothing("an empty path", Path::empty());
}

#[test]
fn off_sheet() {
    let found = only(circle((-40.0, 80.0), 30.0).fill("teal"));
    assert_eq!(found.code, Code::OffSheet);
    assert_eq!(found.message, "the path lies wholly off the sheet, 10 away from it");
    assert_eq!(codes([circle((0.0, 0.0), 30.0).moved((400.0, 0.0)).fill("teal")]), ["off-sheet"]);
    // In its own coordinates, a centred sheet reaches to the left of its origin.
    let centred = page().centred().add(circle((-70.0, -50.0), 20.0).fill("teal"));
    assert_eq!(findings(&centred), []);
    let up = page().y_up().add(circle((30.0, 150.0), 5.0).fill("teal"));
    assert_eq!(findings(&up), []);
    nothing("half on the sheet", circle((0.0, 80.0), 30.0).fill("teal"));
    // Only the stroke reaches onto it: that can be seen.
    nothing("a stroke that reaches in", Path::open([(-3.0, 20.0), (-3.0, 90.0)]).stroke("black", 10.0));
}

#[test]
fn speck() {
    let alone = only(circle((100.0, 80.0), 0.3).fill("teal"));
    assert_eq!(
        (alone.code, alone.message.starts_with("the whole drawing is a dot: 0.6")),
        (Code::Speck, true)
    );
    let both = [kite().fill("teal"), circle((10.0, 80.0), 0.3).fill("teal")];
    assert_eq!(codes(both), ["speck"]);
    assert_eq!(only(kite().scaled(0.004).moved((50.0, 50.0)).fill("teal")).code, Code::Speck);
    assert_eq!(codes([kite().fill("teal"), circle((10.0, 80.0), 0.5).fill("teal")]), [] as [&str; 0]);
    nothing("a thin line", Path::open([(20.0, 20.0), (90.0, 20.0)]).stroke("black", 0.1));
    let dot = circle((10.0, 80.0), 0.3).fill("teal");
    let paper = sheet(200.0, 160.0).unit("mm").add(kite().fill("teal")).add(dot);
    assert_eq!(findings(&paper), [], "three fifths of a millimetre can be seen");
}

#[test]
fn uneven_ring() {
    let ring = |step: f64, n: usize| {
        Path::closed((0..n).map(|i| polar(deg(step) * i as f64, 50.0) + pt(100.0, 80.0))).fill("teal")
    };
    let found = only(ring(50.0, 7));
    assert_eq!(found.code, Code::UnevenRing);
    assert_eq!(found.message, "7 vertices stand 50 degrees apart, but the last and the first 60");
    assert!(only(ring(50.0, 8)).message.contains("stand 50 degrees apart, but the last and the first 10"));
    assert!(codes([ring(50.0, 9)]).contains(&"uneven-ring"), "it overshoots");
    let copies = |step: f64, n: usize| -> Vec<Item> {
        (0..n)
            .map(|i| circle(polar(deg(step) * i as f64, 50.0) + pt(100.0, 80.0), 5.0).fill("teal"))
            .collect()
    };
    assert_eq!(codes(copies(50.0, 7)), ["uneven-ring"]);
    assert_eq!(codes(copies(45.0, 8)), [] as [&str; 0]);
    assert_eq!(codes(copies(45.0, 4)), [] as [&str; 0], "half a ring");
    nothing("a polygon", polygon((100.0, 80.0), 7, 50.0).fill("teal"));
    nothing("a star", star((100.0, 80.0), 9, 50.0, 20.0).fill("teal"));
    nothing(
        "half a disc of sides",
        Path::closed(between(deg(0.0), deg(180.0), 9).map(|a| polar(a, 50.0) + pt(100.0, 80.0))).fill("teal"),
    );
    nothing("a rounded rectangle", rounded_rectangle((20.0, 20.0), 90.0, 60.0, 10.0).fill("teal"));
}

#[test]
fn angle_unit() {
    let ring = |step: Angle, n: usize| {
        Path::closed((0..n).map(|i| polar(step * i as f64, 50.0) + pt(100.0, 80.0))).stroke("teal", 1.0)
    };
    let found = only(ring(rad(72.0), 5));
    assert_eq!(found.code, Code::AngleUnit);
    assert!(
        found.message.ends_with("what 72 radians come to: degrees taken as radians"),
        "{}",
        found.message
    );
    assert_eq!(found.mend, "write deg(72) for the step, or use around(5)");
    let crowded = only(ring(deg(2.0 * PI / 6.0), 6));
    assert_eq!(crowded.code, Code::AngleUnit);
    assert_eq!(crowded.mend, "write turns(1 / 6) for the step, or use around(6)");
    let arc = start((150.0, 80.0)).arc_about((100.0, 80.0), deg(PI)).open().stroke("teal", 1.0);
    assert!(only(arc).message.contains("which is PI: radians taken as degrees"));
    nothing("a pentagon", ring(deg(72.0), 5));
    nothing(
        "a quarter",
        start((150.0, 80.0)).arc_about((100.0, 80.0), rad(PI / 2.0)).open().stroke("teal", 1.0),
    );
    nothing("a slim arc", start((150.0, 80.0)).arc_about((100.0, 80.0), deg(5.0)).open().stroke("teal", 1.0));
}

#[test]
fn self_crossing() {
    let bow = Path::closed([(20.0, 20.0), (90.0, 90.0), (90.0, 20.0), (20.0, 90.0)]);
    let found = only(bow.clone().fill("teal"));
    assert_eq!((found.code, found.at), (Code::SelfCrossing, pt(55.0, 55.0)));
    assert_eq!(found.message, "a filled contour crosses itself once, first at (55, 55)");
    nothing("a line that loops", bow.stroke("teal", 1.0));
    let lap = Path::closed([
        (20.0, 20.0),
        (90.0, 20.0),
        (90.0, 60.0),
        (40.0, 60.0),
        (40.0, 10.0),
        (60.0, 10.0),
        (60.0, 90.0),
        (20.0, 90.0),
    ]);
    nothing("one that laps over itself", lap.clone().fill("teal"));
    assert_eq!(only(lap.fill("teal").fill_rule("evenodd")).code, Code::SelfCrossing);
    let pentagram = Path::closed(around(5).map(|a| polar(a * 2.0, 50.0) + pt(100.0, 80.0)));
    nothing("a star in one go", pentagram.fill("teal"));
    nothing("two that overlap", circle((80.0, 80.0), 30.0).and(&circle((100.0, 80.0), 30.0)).fill("teal"));
    nothing("a kite", kite().fill("teal"));
}

#[test]
fn closed_hole() {
    let same = circle((100.0, 80.0), 50.0).and(&circle((100.0, 80.0), 20.0)).fill("teal");
    let found = only(same.clone());
    assert_eq!((found.code, found.contour), (Code::ClosedHole, Some(1)));
    nothing("a hole", circle((100.0, 80.0), 50.0).with_hole(circle((100.0, 80.0), 20.0)).fill("teal"));
    nothing("under the even-odd rule", same.fill_rule("evenodd"));
    nothing("overlapping", circle((80.0, 80.0), 30.0).and(&circle((100.0, 80.0), 30.0)).fill("teal"));
    nothing("side by side", circle((50.0, 80.0), 30.0).and(&circle((130.0, 80.0), 30.0)).fill("teal"));
    nothing(
        "rings of lines",
        circle((100.0, 80.0), 50.0).and(&circle((100.0, 80.0), 20.0)).stroke("teal", 2.0),
    );
}

#[test]
fn kink() {
    let bent = |lift: f64| {
        start((20.0, 80.0))
            .cubic((40.0, 20.0), (70.0, 50.0), (100.0, 80.0))
            .cubic((130.0, 110.0 + lift), (160.0, 130.0), (180.0, 80.0))
            .open()
            .stroke("teal", 2.0)
    };
    let found = only(bent(6.0));
    assert_eq!((found.code, found.at), (Code::Kink, pt(100.0, 80.0)));
    assert!(found.message.starts_with("the curve has a kink of 5.1"), "{}", found.message);
    nothing("a smooth joint", bent(0.0));
    nothing("a plain corner", bent(30.0));
    nothing(
        "rounding to two decimals",
        Path::from_data(
            &through([(20.0, 20.0), (90.0, 30.0), (150.0, 120.0), (30.0, 100.0)]).close().data_rounded(1),
        )
        .unwrap()
        .fill("teal"),
    );
}

#[test]
fn crowded_vertices() {
    let twice = Path::closed([(20.0, 20.0), (90.0, 20.0), (90.0, 20.0), (50.0, 90.0)]).fill("teal");
    let found = only(twice);
    assert_eq!((found.code, found.at), (Code::CrowdedVertices, pt(90.0, 20.0)));
    assert_eq!(found.message, "vertices 1 and 2 stand in one place");
    let near = Path::closed([(20.0, 20.0), (90.0, 20.0), (90.02, 20.01), (50.0, 90.0)]).fill("teal");
    assert!(only(near).message.starts_with("vertices 1 and 2 stand only 0.0224 apart"));
    nothing("a fine curve", circle((100.0, 80.0), 50.0).flattened(0.0001).fill("teal"));
    nothing(
        "a loop that comes back",
        start((100.0, 80.0)).cubic((150.0, 20.0), (50.0, 20.0), (100.0, 80.0)).open().stroke("teal", 1.0),
    );
    nothing(
        "small bevels",
        Path::closed([(20.0, 20.0), (90.0, 20.0), (91.0, 21.0), (91.0, 90.0), (20.0, 90.0)]).fill("teal"),
    );
}

#[test]
fn coarse_curve() {
    let bent = Path::closed(around(24).map(|a| polar(a, 70.0) * pt(1.0, 0.9) + pt(100.0, 80.0)));
    let found = only(bent.fill("teal"));
    assert_eq!(found.code, Code::CoarseCurve);
    assert!(found.message.contains("straight sides stand for a curve"), "{}", found.message);
    nothing("a dodecagon is a shape", polygon((100.0, 80.0), 12, 70.0).fill("teal"));
    nothing("a polygon of many sides is one too", polygon((100.0, 80.0), 36, 70.0).fill("teal"));
    nothing("fine enough", polygon((100.0, 80.0), 90, 70.0).fill("teal"));
    nothing("small enough", polygon((100.0, 80.0), 24, 10.0).fill("teal"));
    nothing("a circle", circle((100.0, 80.0), 70.0).fill("teal"));
}

#[test]
fn cut_stroke() {
    let frame = rectangle((0.0, 0.0), 200.0, 160.0).stroke("teal", 6.0);
    let found = only(frame);
    assert_eq!(found.code, Code::CutStroke);
    assert_eq!(
        found.message,
        "the stroke is cut by the left, right, upper and lower edges of the sheet: 3 of its width are lost"
    );
    nothing("within", rectangle((3.0, 3.0), 194.0, 154.0).stroke("teal", 6.0));
    nothing("on past the edge", Path::open([(-20.0, 50.0), (220.0, 70.0)]).stroke("teal", 6.0));
    nothing("a fill to the edge", rectangle((0.0, 0.0), 200.0, 160.0).fill("teal"));
}

#[test]
fn stretched() {
    let hoop = circle((0.0, 0.0), 20.0).stroke("teal", 6.0);
    let found = only(hoop.clone().scaled_by((2.0, 1.0)).moved((100.0, 80.0)));
    assert_eq!((found.code, found.level), (Code::Stretched, Level::Hint));
    assert_eq!(found.message, "the stroke is stretched: it is 2 times as wide one way as the other");
    let turned = group().add(hoop.clone().rotated(deg(30.0))).scaled_by((1.0, 3.0)).moved((100.0, 80.0));
    assert_eq!(only(turned).code, Code::Stretched);
    nothing("evenly", hoop.clone().scaled(2.0).moved((100.0, 80.0)));
    nothing("mirrored", hoop.clone().scaled_by((-1.0, 1.0)).rotated(deg(20.0)).moved((100.0, 80.0)));
    nothing("hardly", hoop.clone().scaled_by((1.1, 1.0)).moved((100.0, 80.0)));
    nothing(
        "without a stroke",
        circle((0.0, 0.0), 20.0).fill("teal").scaled_by((2.0, 1.0)).moved((100.0, 80.0)),
    );
    let fitted = circle((0.0, 0.0), 20.0).fitted(&cell((20.0, 20.0), 120.0, 40.0), Fit::Stretch);
    nothing("the path itself", fitted.stroke("teal", 6.0));
}

#[test]
fn labels_are_no_findings() {
    let text = "abcdefghijklmnopqrstuvwxyz 0123456789 %";
    for height in [5.0, 9.0, 13.0] {
        let label = lettering(text, (2.0, 50.0), height * 0.4).stroke("teal", 0.13 * height).cap("round");
        nothing("a label", label);
    }
}

#[test]
fn what_is_clipped_covers_nothing() {
    let under = circle((100.0, 80.0), 20.0).fill("red");
    let over = group().add(circle((100.0, 80.0), 60.0).fill("teal")).clipped(circle((100.0, 140.0), 10.0));
    assert_eq!(codes([Node::from(under), over.into()]), [] as [&str; 0]);
}

#[test]
fn covered() {
    let (small, large) = (circle((100.0, 80.0), 20.0).fill("red"), circle((100.0, 80.0), 60.0).fill("teal"));
    let both = [small.clone().named("vent"), large.clone().named("sail")];
    let found = findings(&page().add_all(both));
    assert_eq!(found.len(), 1);
    assert_eq!((found[0].code, found[0].path), (Code::Covered, Some(0)));
    assert_eq!(found[0].message, "\"vent\": the path lies wholly under another, \"sail\", and is not seen");
    assert_eq!(codes([kite().fill("red"), kite().fill("teal")]), ["covered"]);
    assert_eq!(codes([large.clone(), small.clone()]), [] as [&str; 0], "the right way up");
    assert_eq!(codes([small.clone(), large.clone().opacity(0.5)]), [] as [&str; 0], "seen through");
    let hoop = circle((100.0, 80.0), 60.0).with_hole(circle((100.0, 80.0), 40.0)).fill("teal");
    assert_eq!(codes([small.clone(), hoop]), [] as [&str; 0], "seen through the hole");
    assert_eq!(
        codes([kite().fill("red").stroke("black", 4.0), kite().fill("teal")]),
        [] as [&str; 0],
        "the stroke is seen"
    );
    let beside = circle((150.0, 80.0), 60.0).fill("teal");
    assert_eq!(codes([small, beside]), [] as [&str; 0], "half of it is seen");
}

#[test]
fn lone_vertex() {
    let found = only(kite().start((20.0, 20.0)).open().fill("teal"));
    assert_eq!((found.code, found.contour, found.at), (Code::LoneVertex, Some(1), pt(20.0, 20.0)));
    let dot = || start((20.0, 20.0)).close();
    assert_eq!(codes([dot().stroke("teal", 9.0)]), ["lone-vertex"]);
    nothing("a dot of a round cap", dot().stroke("teal", 9.0).cap("round"));
}

#[test]
fn a_report_has_the_figures_of_every_path_where_it_stands() {
    let hoop = circle((0.0, 0.0), 10.0).with_hole(circle((0.0, 0.0), 5.0));
    let both = group().add(hoop.fill("teal").named("hoop")).scaled(2.0).moved((60.0, 60.0));
    let report =
        page().add(both).add(Path::open([(10.0, 10.0), (110.0, 10.0)]).stroke("red", 1.0)).check().unwrap();
    assert_eq!(report.findings, []);
    let [hoop, line] = &report.paths[..] else { panic!() };
    assert_eq!((hoop.name.as_deref(), hoop.contours.len()), (Some("hoop"), 2));
    assert!((hoop.area - 300.0 * PI).abs() < 1e-9 && (hoop.length - 60.0 * PI).abs() < 1e-9);
    assert_eq!(hoop.bounds, Cell::of([pt(40.0, 40.0), pt(80.0, 80.0)]));
    assert_eq!(
        (hoop.contours[0].direction, hoop.contours[1].direction),
        (Direction::Clockwise, Direction::Anticlockwise)
    );
    assert_eq!((line.length, line.half_point, line.half_tangent), (100.0, pt(60.0, 10.0), pt(1.0, 0.0)));
    assert_eq!((line.contours[0].closed, line.contours[0].segments), (false, 1));
    let empty = page().add(Path::empty().fill("red")).check().unwrap();
    assert_eq!((empty.paths[0].bounds, empty.paths[0].half_tangent), (None, Point::ZERO));
    assert!(page().add(start((f64::NAN, 0.0)).close().fill("red")).check().is_err());
}

proptest! {
    #![proptest_config(crate::support::cases(150))]

    /// Whatever is on the sheet, looking it over ends, and every place is a place.
    #[test]
    fn any_sheet_can_be_checked(paths in prop::collection::vec(any_path(150.0), 1..4), width in 0.0..20.0_f64) {
        let items = paths.into_iter().map(|path| path.fill("teal").stroke("black", width));
        let report = page().add_all(items).check().unwrap();
        for finding in report.findings {
            prop_assert!(finding.at.is_finite() && finding.path.is_some_and(|path| path < report.paths.len()), "{finding:?}");
            prop_assert!(!finding.message.is_empty() && !finding.mend.is_empty());
        }
    }
}

/// Of what is clipped or masked, parts are meant to lie off the sheet, squashed as they may be.
#[test]
fn what_is_cut_off_may_lie_beyond_the_sheet() {
    let kites = || {
        let kite = |x: f64| polygon((x, 40.0), 4, 20.0).fill("teal").stroke("navy", 3.0);
        group().add(kite(50.0)).add(kite(400.0)).scaled_by((1.0, 0.5))
    };
    let window = rectangle((0.0, 0.0), 100.0, 80.0);
    let codes = |group: Group| -> Vec<&str> {
        let report = sheet(100.0, 80.0).add(group).check().unwrap();
        report.findings.iter().map(|finding| finding.code.name()).collect()
    };
    assert_eq!(codes(kites().clipped(window.clone())), [] as [&str; 0]);
    assert_eq!(codes(kites().masked(window.fill("white"))), [] as [&str; 0]);
    assert_eq!(codes(kites()), ["stretched", "off-sheet"]);
    // A glow alone is no reason to look away.
    assert_eq!(codes(kites().glow(3.0, "gold")), ["stretched", "off-sheet"]);
}
