//! Each kind of finding at any size, place, turn and direction: what makes it fire, and that its mend, followed to
//! the letter, removes it and brings no other.

use chordane::check::{Code, Finding};
use chordane::prelude::*;
use proptest::prelude::*;

/// Where and how a shape is put that was made about the origin, with a size of about 1.
#[derive(Clone, Copy, Debug)]
struct Put {
    at: Point,
    radius: f64,
    turn: Angle,
    mirrored: bool,
}

impl Put {
    fn path(&self, path: &Path) -> Path {
        let mirrored = if self.mirrored { path.scaled_by((1.0, -1.0)) } else { path.clone() };
        mirrored.scaled(self.radius).rotated(self.turn).moved(self.at)
    }

    fn items(&self, path: &Path) -> [Item; 2] {
        [self.path(path).fill("teal"), self.path(path).stroke("black", 2.0)]
    }
}

fn puts() -> impl Strategy<Value = Put> {
    (170.0..230.0_f64, 170.0..230.0_f64, 40.0..120.0_f64, 0.0..360.0_f64, any::<bool>())
        .prop_map(|(x, y, radius, turn, mirrored)| Put { at: pt(x, y), radius, turn: deg(turn), mirrored })
}

fn findings<N: Into<chordane::sheet::Node>>(items: impl IntoIterator<Item = N>) -> Vec<Finding> {
    sheet(400.0, 400.0).add_all(items).check().unwrap().findings
}

/// The one finding, of a kind.
#[track_caller]
fn only<N: Into<chordane::sheet::Node>>(code: Code, item: N) -> Finding {
    let mut all = findings([item]);
    assert!(all.len() == 1 && all[0].code == code, "{code} alone was expected: {all:#?}");
    all.remove(0)
}

#[track_caller]
fn sound<N: Into<chordane::sheet::Node>>(items: impl IntoIterator<Item = N>) {
    assert_eq!(findings(items), []);
}

/// Points at even steps round the origin.
fn steps(n: usize, step: Angle) -> Vec<Point> {
    (0..n).map(|i| polar(step * i as f64, 1.0)).collect()
}

/// An uneven polygon of corners round the origin.
fn kite(n: usize) -> Vec<Point> {
    around(n)
        .enumerate()
        .map(|(i, a)| polar(a + deg(3.0 * (i % 3) as f64), 1.0 - 0.15 * (i % 2) as f64))
        .collect()
}

proptest! {
    #![proptest_config(crate::support::cases(60))]

    #[test]
    fn outlines_that_miss_a_side(put in puts(), n in 3..9_usize) {
        let open = put.path(&Path::open(kite(n)));
        let both = |path: Path| path.fill("teal").stroke("black", 2.0);
        only(Code::OpenOutline, both(open.clone()));
        sound([both(open.close())]);
        let comes_back = Path::open(kite(n).into_iter().chain(kite(n).first().copied()));
        only(Code::OpenOutline, put.path(&comes_back).stroke("black", 2.0));
        sound([put.path(&comes_back.close()).stroke("black", 2.0)]);
    }

    #[test]
    fn vertices_listed_again(put in puts(), n in 3..9_usize, off in 1e-7..5e-5_f64) {
        let (plain, first) = (kite(n), kite(n)[0]);
        let near = Path::closed(plain.iter().copied().chain([first * (1.0 + off)]));
        only(Code::DoubledEnd, put.path(&near).fill("teal"));
        let again = Path::closed(plain.iter().copied().chain([first]));
        prop_assert_eq!(&again, &Path::closed(plain));
        sound(put.items(&again));
    }

    #[test]
    fn stars_walked_by_turns_close_by_rounding(put in puts(), n in 5..12_usize) {
        // The documented way: on by a length, then turned, until it is back.
        let laps = if n % 2 == 0 { 1 } else { 2 };
        let mut pen = start((0.3, 0.1)).heading(deg(17.0));
        for _ in 0..n {
            pen = pen.ahead(1.0).turn(turns(f64::from(laps) / n as f64));
        }
        let star = pen.close();
        prop_assert_eq!(star.contours()[0].vertex_count(), n);
        let small = star.fitted(&cell((-0.7, -0.7), 1.4, 1.4), Fit::Contain);
        sound([put.path(&small).stroke("black", 2.0)]);
        sound([put.path(&small).rounded(3.0).stroke("black", 2.0)]);
    }

    #[test]
    fn nothing_to_see(put in puts(), n in 3..9_usize) {
        let path = put.path(&Path::closed(kite(n)));
        let told = only(Code::Unpainted, path.clone());
        prop_assert!(told.message.contains("neither fill nor stroke"));
        let told = only(Code::Unpainted, path.clone().fill("teal").opacity(0.0));
        prop_assert!(told.message.contains("the opacity is 0"), "{}", told.message);
        sound([path.clone().fill("teal").opacity(0.5)]);
        let told = only(Code::Unpainted, path.clone().fill("transparent"));
        prop_assert!(told.message.contains("transparent"), "{}", told.message);
        let told = only(Code::Unpainted, path.stroke("black", 0.0));
        prop_assert!(told.message.contains("0 wide"), "{}", told.message);
        let line = Path::open([(-1.0, 0.0), (1.0, 0.0)]);
        only(Code::Unpainted, line.clone().scaled(put.radius).moved(put.at).fill("teal"));
        sound([put.path(&line).stroke("black", 2.0)]);
    }

    #[test]
    fn shapes_off_the_sheet(put in puts(), n in 3..9_usize, far in 150.0..900.0_f64) {
        let path = put.path(&Path::closed(kite(n)));
        only(Code::OffSheet, path.moved((far + 200.0 + put.radius, 0.0)).fill("teal"));
        sound([path.fill("teal")]);
    }

    #[test]
    fn shapes_mostly_off_the_sheet(radius in 20.0..120.0_f64, share in 0.75..0.95_f64, side in 0..4_usize) {
        // So far over the edge that a tenth of a disc or less is left.
        let out = [pt(-1.0, 0.0), pt(1.0, 0.0), pt(0.0, -1.0), pt(0.0, 1.0)][side];
        let place = |share: f64| pt(200.0, 200.0) + out * (200.0 + radius * share);
        let disc = |share: f64| circle(place(share), radius);
        only(Code::OffSheet, disc(share).fill("teal"));
        sound([disc(0.2).fill("teal"), disc(0.2).stroke("black", 2.0)]);
    }

    #[test]
    fn the_radius_that_was_forgotten(put in puts(), n in 3..400_usize) {
        let plain = Path::closed(steps(n, turns(1.0 / n as f64))).moved(put.at);
        let told = only(Code::Speck, plain.clone().stroke("black", 3.0));
        prop_assert!(told.message.starts_with("the whole drawing is a dot"), "{}", told.message);
        prop_assert!(told.mend.ends_with("as in cos(a) * 133?"), "{}", told.mend);
        sound([Path::closed(around(n).map(|a| polar(a, 133.0))).moved(put.at).stroke("black", 3.0)]);
        // Beside something else it is told where it is a ring of some vertices.
        let frame = rectangle((10.0, 10.0), 380.0, 380.0).stroke("black", 2.0);
        if n >= 5 {
            let codes: Vec<Code> = findings([frame.clone(), plain.fill("teal")]).iter().map(|f| f.code).collect();
            prop_assert_eq!(codes, [Code::Speck]);
        }
        let scattered = around(9).map(|a| circle(polar(a, 90.0) + put.at, 1.0).fill("teal"));
        sound(scattered.collect::<Vec<_>>());
    }

    #[test]
    fn rings_that_do_not_come_round(put in puts(), n in 5..40_usize, off in 0.03..0.5_f64, more in any::<bool>()) {
        let even = 360.0 / n as f64;
        // The last step is that much shorter or longer than the others.
        let step = if more { even * (1.0 + off / n as f64) } else { even * (1.0 - off / n as f64) };
        let ring = put.path(&Path::closed(steps(n, deg(step))));
        let told = only(Code::UnevenRing, ring.fill("teal"));
        let mend = format!("use around({n}): even angles of a full turn, the first one not repeated");
        prop_assert_eq!(told.mend, mend);
        sound([put.path(&Path::closed(around(n).map(|a| polar(a, 1.0)))).fill("teal")]);
        // Twice round, as a star in one go.
        if n % 2 == 1 {
            let twice = put.path(&Path::closed(steps(n, deg(step * 2.0))));
            let told = only(Code::UnevenRing, twice.stroke("black", 2.0));
            prop_assert!(told.mend.starts_with(&format!("write turns(2 / {n}) for the step")), "{}", told.mend);
            sound([put.path(&Path::closed(steps(n, turns(2.0 / n as f64)))).stroke("black", 2.0)]);
        }
    }

    #[test]
    fn degrees_taken_for_radians(put in puts(), n in prop::sample::select(vec![3_usize, 4, 5, 6, 7, 8, 9, 10, 11, 12, 24, 36, 360])) {
        let ring = |step: Angle| put.path(&Path::closed(steps(n, step))).stroke("black", 2.0);
        let told = findings([ring(rad(360.0 / n as f64))]);
        let told: Vec<&Finding> = told.iter().filter(|finding| finding.code == Code::AngleUnit).collect();
        prop_assert!(told.len() == 1 && told[0].mend.contains(&format!("use around({n})")), "{:?}", told);
        let crowded = put.path(&Path::closed(steps(n, deg(std::f64::consts::TAU / n as f64))));
        let told = findings([crowded.fill("teal"), put.path(&Path::closed(kite(5))).stroke("black", 2.0)]);
        let told = told.iter().find(|finding| finding.code == Code::AngleUnit);
        prop_assert!(told.is_some_and(|told| told.mend.contains(&format!("use around({n})"))), "{:?}", told);
        sound([ring(deg(360.0 / n as f64))]);
    }

    #[test]
    fn counts_taken_for_radians(put in puts(), n in 3..60_usize) {
        prop_assume!(n != 44);
        let ring = put.path(&Path::closed(steps(n, rad(1.0)))).stroke("black", 2.0);
        let told = findings([ring]);
        let told = told.iter().find(|finding| finding.code == Code::AngleUnit);
        prop_assert!(told.is_some_and(|told| told.mend.starts_with(&format!("use around({n}) for {n} even angles"))), "{:?}", told);
    }

    #[test]
    fn rims_that_cross(put in puts(), x in 0.4..1.0_f64) {
        let corners = [(-1.0, -x), (1.0, -1.0), (1.0, x), (-1.0, 1.0)].map(|(x, y)| pt(x, y) * 0.7);
        let [a, b, c, d] = corners;
        let told = findings([put.path(&Path::closed([a, c, b, d])).fill("teal")]);
        prop_assert!(told.len() == 1 && told[0].code == Code::SelfCrossing, "{:?}", told);
        sound([put.path(&Path::closed([a, b, c, d])).fill("teal")]);
    }

    #[test]
    fn holes_that_do_not_open(put in puts(), n in 3..9_usize, size in 0.2..0.5_f64) {
        let (outer, inner) = (Path::closed(kite(n)), Path::closed(kite(n)).scaled(size).rotated(deg(20.0)));
        let inner = if n == 3 { inner.scaled(0.5) } else { inner };
        only(Code::ClosedHole, put.path(&outer.clone().and(&inner)).fill("teal"));
        sound([put.path(&outer.clone().with_hole(inner.clone())).fill("teal")]);
        sound([put.path(&outer.clone().and(&inner).turn_holes()).fill("teal")]);
        sound([put.path(&outer.clone().and(&inner)).fill("teal").fill_rule("evenodd")]);
        // A bar across the hole is no hole that stays shut.
        let bar = Path::closed([(-0.45, -0.02), (0.45, -0.02), (0.45, 0.02), (-0.45, 0.02)]);
        let ring = circle((0.0, 0.0), 1.0).with_hole(circle((0.0, 0.0), 0.4));
        sound([put.path(&ring.and(&bar)).fill("teal")]);
    }

    #[test]
    fn kinks_in_curves(put in puts(), angle in 2.5..11.0_f64, left in any::<bool>()) {
        let angle = if left { -angle } else { angle };
        let curve = |angle: f64| {
            let handle = polar(deg(angle), 0.4);
            start((-1.0, 0.3)).cubic((-0.8, -0.3), (-0.4, 0.0), (0.0, 0.0)).cubic(handle, (0.8, 0.3), (1.0, -0.3)).open()
        };
        let told = only(Code::Kink, put.path(&curve(angle)).stroke("black", 2.0));
        prop_assert!(told.at.distance(put.at) < 1e-9);
        sound([put.path(&curve(0.0)).stroke("black", 2.0)]);
    }

    #[test]
    fn every_kink_is_told(put in puts(), count in 1..5_usize, angle in 4.0..10.0_f64) {
        // Bows in a row, each of which leaves to one side and comes back from it: a kink at every joint.
        let third = 2.0 / (count + 1) as f64 / 3.0;
        let lift = third * (0.5 * angle).to_radians().tan();
        let mut pen = start((-1.0, 0.0));
        for i in 0..=count {
            let from = -1.0 + 3.0 * third * i as f64;
            pen = pen.cubic((from + third, lift), (from + 2.0 * third, lift), (from + 3.0 * third, 0.0));
        }
        let wide = Put { radius: 120.0, ..put };
        let told = findings([wide.path(&pen.open()).stroke("black", 2.0)]);
        prop_assert!(told.len() == count && told.iter().all(|finding| finding.code == Code::Kink), "{:?}", told);
        for (i, finding) in told.iter().enumerate() {
            let joint = Path::open([(-1.0 + 3.0 * third * (i + 1) as f64, 0.0)]);
            prop_assert!(finding.at.distance(wide.path(&joint).contours()[0].start()) < 1e-6, "{:?}", finding);
        }
    }

    #[test]
    fn hooks_in_curves(put in puts(), size in 0.5..2.0_f64, aside in 60.0..150.0_f64) {
        let hook = polar(deg(aside), size / put.radius);
        let curve = |hook: Point| {
            let mut pen = start((-1.0, 0.0)).cubic((-0.7, -0.4), (-0.3, 0.0), (0.0, 0.0));
            if hook != Point::ZERO {
                pen = pen.line(hook);
            }
            pen.cubic(hook + pt(0.3, 0.0), (0.7, 0.4), (1.0, 0.0)).open()
        };
        let told = findings([put.path(&curve(hook)).stroke("black", 2.0)]);
        prop_assert!(told.iter().any(|finding| finding.message.contains("hook")), "{:?}", told);
        sound([put.path(&curve(Point::ZERO)).stroke("black", 2.0)]);
    }

    #[test]
    fn crowded_vertices(put in puts(), n in 4..12_usize, i in 0..12_usize, apart in prop::sample::select(vec![0.0, 1e-5, 1e-4])) {
        let i = i % (n - 1);
        let mut doubled = kite(n);
        let beside = doubled[i] + (doubled[i + 1] - doubled[i]) * apart;
        doubled.insert(i + 1, beside);
        only(Code::CrowdedVertices, put.path(&Path::closed(doubled)).fill("teal"));
        sound(put.items(&Path::closed(kite(n))));
        // In the middle of a curve too.
        let curve = start((-1.0, 0.0)).cubic((-0.7, -0.6), (-0.3, -0.2), (0.0, 0.0));
        let next = pt(1.0, 0.6667).normalize() * 0.001;
        let doubled = curve.clone().cubic(next * 0.3, next * 0.6, next).cubic((0.3, 0.2), (0.7, 0.6), (1.0, 0.0));
        let told = findings([put.path(&doubled.open()).stroke("black", 2.0)]);
        prop_assert!(told.iter().any(|finding| finding.code == Code::CrowdedVertices), "{:?}", told);
    }

    #[test]
    fn cusps_are_sound(put in puts(), n in 3..8_usize, points in 40..400_usize) {
        // A wheel that rolls inside another comes to a stop at each of its cusps.
        let inner = 1.0 / n as f64;
        let wheels = wheel(1.0 - inner, 1.0, deg(0.0)).wheel(inner, 1.0 - n as f64, deg(0.0));
        let cusped = Path::closed(wheels.points(points * n));
        let told = findings(put.items(&cusped));
        prop_assert!(told.iter().all(|finding| ![Code::CrowdedVertices, Code::DoubledEnd].contains(&finding.code)), "{:?}", told);
    }

    #[test]
    fn curves_of_few_sides(put in puts(), n in 24..34_usize) {
        let put = Put { radius: 120.0, ..put };
        let bent: Vec<Point> = around(n).map(|a| polar(a, 1.0) * pt(1.0, 0.85)).collect();
        only(Code::CoarseCurve, put.path(&Path::closed(bent.clone())).fill("teal"));
        sound([put.path(&through(bent).close()).fill("teal")]);
        // Every side and corner the same: a polygon that is meant.
        sound([polygon(put.at, n, put.radius).fill("teal")]);
    }

    #[test]
    fn strokes_that_were_stretched(put in puts(), stretch in 1.3..3.0_f64) {
        let hoop = circle((0.0, 0.0), 0.4);
        let by = pt(stretch, 1.0);
        let item = hoop.scaled(put.radius).stroke("black", 4.0).scaled_by((by.x, by.y)).rotated(put.turn).moved(put.at);
        only(Code::Stretched, item);
        sound([hoop.scaled(put.radius).scaled_by((by.x, by.y)).rotated(put.turn).moved(put.at).stroke("black", 4.0)]);
    }

    #[test]
    fn strokes_cut_by_an_edge(width in 1.0..12.0_f64, inset in 0.0..0.45_f64, side in 0..4_usize, long in any::<bool>()) {
        let at = inset * width;
        // A line along an edge, from corner to corner or past both.
        let past = if long { 30.0 } else { 0.0 };
        let along = |at: f64| {
            let line = Path::open([(-past, at), (400.0 + past, at)]);
            line.rotated_about((200.0, 200.0), deg(90.0) * side as f64)
        };
        let told = only(Code::CutStroke, along(at).stroke("black", width));
        let edge = ["upper", "right", "lower", "left"][side];
        prop_assert!(told.message.starts_with(&format!("the stroke is cut by the {edge} edge of the sheet")), "{}", told.message);
        sound([along(width * 0.5).stroke("black", width)]);
        // A curve that comes as near.
        let disc = |at: f64| circle((200.0, 90.0 + at), 90.0).rotated_about((200.0, 200.0), deg(90.0) * side as f64);
        only(Code::CutStroke, disc(at).stroke("black", width));
        sound([disc(width * 0.5).stroke("black", width)]);
        // A line that ends square at the edge, and one that goes on.
        let ends = |past: f64| Path::open([(77.0, -past), (150.0, 400.0 + past)]).rotated_about((200.0, 200.0), deg(90.0) * side as f64);
        sound([ends(0.0).stroke("black", width), ends(width).stroke("black", width)]);
    }

    #[test]
    fn squared_paper_and_stripes_are_sound(n in 2..12_usize, width in 0.5..3.0_f64) {
        let step = 400.0 / n as f64;
        let lines = (1..n).flat_map(|i| {
            let at = step * i as f64;
            [Path::open([(at, 0.0), (at, 400.0)]), Path::open([(0.0, at), (400.0, at)])]
        });
        sound(lines.map(|line| line.stroke("black", width)).collect::<Vec<_>>());
        let stripes = (0..n).map(|i| Path::open([(0.0, step * (i as f64 + 0.5)), (400.0, step * (i as f64 + 0.5))]));
        sound(stripes.map(|line| line.stroke("black", step)).collect::<Vec<_>>());
    }

    #[test]
    fn what_is_covered(put in puts(), n in 4..9_usize) {
        let (small, large) = (Path::closed(kite(n)).scaled(0.2), Path::closed(kite(n)));
        let [small, large] = [small, large].map(|path| put.path(&path).fill("teal"));
        let told = findings([small.clone(), large.clone()]);
        prop_assert!(told.len() == 1 && told[0].code == Code::Covered, "{:?}", told);
        sound([large, small]);
    }

    #[test]
    fn vertices_alone(put in puts(), n in 3..9_usize) {
        let kite = Path::closed(kite(n));
        only(Code::LoneVertex, put.path(&kite.clone().start((0.1, 0.1)).open()).fill("teal"));
        sound([put.path(&kite).fill("teal")]);
    }

    #[test]
    fn two_of_one_name(put in puts(), n in 3..9_usize) {
        let (sail, vent) = (Path::closed(kite(n)), Path::closed(kite(n)).scaled(0.3));
        let named = |path: &Path, name: &str| put.path(path).fill("teal").named(name);
        let told = findings([named(&sail, "sail"), named(&vent, "sail")]);
        prop_assert!(told.len() == 1 && told[0].code == Code::SameName && told[0].path == Some(1), "{:?}", told);
        sound([named(&sail, "sail"), named(&vent, "vent")]);
        sound([copies_at(named(&vent.scaled(0.2), "rivet").moved(-put.at), [(100.0, 100.0), (300.0, 300.0)])]);
    }
}

#[test]
fn what_is_left_of_nothing() {
    let frame = || rectangle((10.0, 10.0), 380.0, 380.0).stroke("black", 2.0);
    let told = findings([frame(), circle((100.0, 100.0), 0.0).fill("teal")]);
    assert_eq!(told.len(), 1, "{told:?}");
    assert_eq!((told[0].code, told[0].path), (Code::Speck, Some(1)));
    assert!(told[0].message.starts_with("the path is empty"), "{}", told[0].message);
}

#[test]
fn in_a_document_places_are_its_own_and_mends_speak_of_markup() {
    let document =
        br#"<svg xmlns="http://www.w3.org/2000/svg" width="800" height="400" viewBox="100 50 200 100">
        <path d="M120 70H180L150 120" fill="teal" stroke="black" stroke-width="2"/>
    </svg>"#;
    let report = Sheet::read_svg(document).unwrap().sheet.check().unwrap();
    let figures = &report.paths[0];
    assert_eq!(figures.bounds, chordane::number::Cell::of([pt(120.0, 70.0), pt(180.0, 120.0)]));
    assert_eq!((figures.stroke_width, figures.area), (2.0, 1500.0));
    let [found] = &report.findings[..] else { panic!("{:?}", report.findings) };
    assert_eq!(
        (found.code, found.at, found.mend.as_str()),
        (Code::OpenOutline, pt(150.0, 120.0), "end it with Z in its path data")
    );
}
