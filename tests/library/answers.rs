//! A budget can end a computation and never changes its answer: everything that is asked of a path or a sheet, without a budget, with one that is used
//! up already, and with one that runs out while the work goes on.

use std::collections::BTreeSet;
use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, OnceLock};

use chordane::chance::Dice;
use chordane::check::LoopMoments;
use chordane::combine::Morph;
use chordane::draft::Draft;
use chordane::ground::{Budget, FaultKind, Stopped};
use chordane::prelude::*;
use chordane::raster::DrawError;
use chordane::read::PictureError;

/// What a function gives, as a number that differs where the answer does, or a fault.
type Answer = Result<u64, Fault>;

/// The answer as text, which is equal to itself even where a fault holds a NaN.
fn told(answer: &Answer) -> String {
    format!("{answer:?}")
}

fn hashed(value: &impl std::fmt::Debug) -> u64 {
    let mut hasher = DefaultHasher::new();
    format!("{value:?}").hash(&mut hasher);
    hasher.finish()
}

fn of_path(path: &Path) -> Answer {
    Ok(hashed(&path.sound()?.data()))
}

fn of_sheet(sheet: Sheet) -> Answer {
    let items =
        sheet.sound()?.items().map(|placed| of_path(&placed.path())).collect::<Result<Vec<_>, _>>()?;
    Ok(hashed(&items))
}

fn of_draw<T: AsRef<[u8]>>(drawn: Result<T, DrawError>) -> Answer {
    match drawn {
        Ok(drawn) => Ok(hashed(&drawn.as_ref())),
        Err(DrawError::Fault(fault)) => Err(fault),
        Err(other) => panic!("{other}"),
    }
}

/// What is asked: a path, and a sheet with that path.
struct Subject {
    name: &'static str,
    path: Path,
    sheet: Sheet,
}

impl Subject {
    fn new(name: &'static str, path: Path) -> Self {
        let thread = group().add(Path::open([(0.0, 0.0), (8.0, 8.0)]).stroke("#20303c", 0.5));
        let plaid = pattern(cell((0.0, 0.0), 8.0, 8.0), thread);
        let veil = group().add(path.clone().fill("white").opacity(0.5));
        let item = path.clone().fill(plaid).stroke("#c8553d", 1.0).dash([7.0, 3.0]);
        let layer = group().add(item.blurred(2.0)).opacity(0.8).masked(veil);
        let rim = path.clone().stroke("teal", 2.0).clipped(circle((0.0, 0.0), 60.0));
        Self { name, path, sheet: sheet(200.0, 150.0).centred().add(layer).add(rim) }
    }
}

type Ask = Box<dyn Fn(&Subject) -> Answer>;

fn value<T: std::fmt::Debug>(name: &'static str, ask: impl Fn(&Path) -> T + 'static) -> (&'static str, Ask) {
    (name, Box::new(move |subject| Ok(hashed(&ask(&subject.path)))))
}

fn given<T: std::fmt::Debug>(
    name: &'static str,
    ask: impl Fn(&Path) -> Result<T, Fault> + 'static,
) -> (&'static str, Ask) {
    (name, Box::new(move |subject| ask(&subject.path).map(|value| hashed(&value))))
}

fn path(name: &'static str, ask: impl Fn(&Path) -> Path + 'static) -> (&'static str, Ask) {
    (name, Box::new(move |subject| of_path(&ask(&subject.path))))
}

fn page(name: &'static str, ask: impl Fn(&Sheet) -> Answer + 'static) -> (&'static str, Ask) {
    (name, Box::new(move |subject| ask(&subject.sheet)))
}

/// Functions that return a fault, or a value that carries one.
fn limited() -> Vec<(&'static str, Ask)> {
    let dice = || Dice::new(7, "answers");
    let lens = || circle((5.0, 3.0), 55.0);
    vec![
        given("area", Path::area),
        given("centroid", Path::centroid),
        given("crossings", Path::crossings),
        given("crossings_with", move |path| path.crossings_with(&lens())),
        given("length", Path::length),
        given("survey", |path| path.survey().map(|survey| survey.length())),
        given("nesting", Path::nesting),
        given("vertex_gap", Path::vertex_gap),
        given("inside", move |path| dice().inside(path)),
        given("scatter", move |path| dice().scatter(path, 40)),
        given("scatter_apart", move |path| dice().scatter_apart(path, 9.0)),
        path("turn_holes", Path::turn_holes),
        path("joined", |path| path.joined(0.5)),
        path("thinned", |path| path.thinned(0.1)),
        path("subdivided", |path| path.then(Subdivide::longest(0.5))),
        path("rounded", |path| path.rounded(1.0)),
        path("shaken", |path| path.shaken(1.0, 2.0, 3)),
        path("nibbed", |path| path.nibbed(&Nib::new(3.0, 1.0), 0.05)),
        path("stamped", |path| path.stamped(&circle((0.0, 0.0), 0.5), 2.0)),
        path("outlined", |path| path.outlined(2.0)),
        path("tapered", |path| path.then(LineStyle::new(2.0).tapered(|share| 1.0 - share))),
        path("trimmed", |path| path.trimmed(0.2, 0.7)),
        path("curve_fitted", |path| path.curve_fitted(0.5)),
        path("spun", |path| path.spun(5, (0.0, 0.0))),
        path("dashed", |path| path.then(Dash::new([3.0, 2.0]))),
        path("warped", |path| path.warped(0.05, |p| pt(p.x, p.y + (p.x * 0.1).sin()))),
        path("bent", |path| path.bent(&circle((0.0, 0.0), 70.0))),
        path("waved", |path| path.waved(1.0, 4.0)),
        path("offset", |path| path.offset(1.5)),
        path("union", move |path| path.union(lens())),
        path("intersection", move |path| path.intersection(lens())),
        path("difference", move |path| path.difference(lens())),
        path("xor", move |path| path.xor(lens())),
        path("simplified", Path::simplified),
        path("union_all", |path| {
            union_all(path.contours().iter().map(|one| Path::from_contours([one.clone()])))
        }),
        path("clip_line", move |path| path.clip_line(lens())),
        path("clip_line_outside", move |path| path.clip_line_outside(lens())),
        path("morph", move |path| Morph::at(&path.morph(&lens()), 0.3)),
        page("scene", |sheet| sheet.scene().map(|scene| hashed(&scene.items().len()))),
        page("check", |sheet| sheet.check().map(|report| hashed(&report))),
        page("pixels", |sheet| of_draw(sheet.pixels())),
        page("svg", |sheet| sheet.svg().map(|text| hashed(&text))),
        page("bones", |sheet| sheet.bones(&BonesOptions::default()).and_then(of_sheet)),
        page("findings", |sheet| {
            LoopMoments { moments: &[sheet.clone(), sheet.clone()], last: sheet }
                .findings()
                .map(|all| hashed(&all))
        }),
        page("of_picture", |sheet| {
            let pixels = match sheet.pixels() {
                Err(DrawError::Fault(fault)) => return Err(fault),
                pixels => pixels.unwrap(),
            };
            Draft::of_picture(&pixels.into(), 0.75).map(|draft| hashed(&draft))
        }),
    ]
}

/// Functions of that kind that are given no path.
fn shapes() -> Vec<(&'static str, Ask)> {
    vec![
        path("plot", |_| plot(0.0, 40.0, 1e-3, |x| (x * x).sin())),
        path("traced_trail", |_| traced_trail(1e-3, |share| polar(turns(9.0 * share), 50.0 * share))),
        path("cycloid", |_| cycloid((0.0, 0.0), 1.0, 3.0, 300.0)),
        path("path", |_| wheel(9.0, 1.0, deg(0.0)).wheel(2.0, 301.0, deg(5.0)).path()),
        page("along", |sheet| {
            let line = circle((0.0, 0.0), 50.0);
            let bead = Stamp::new(circle((0.0, 0.0), 1.0).fill("teal")).every(0.1);
            of_sheet(sheet.clone().add(bead.along(&line)))
        }),
        page("picture", |_| {
            static FILE: OnceLock<Vec<u8>> = OnceLock::new();
            let file = FILE.get_or_init(|| Pixels::new(512, 512).unwrap().png().unwrap());
            match Picture::read(file) {
                Err(PictureError::Stopped(fault)) => Err(fault),
                picture => Ok(hashed(&picture.unwrap())),
            }
        }),
        page("linked", |sheet| {
            let hoop = |x: f64| circle((x, 0.0), 20.0).stroke("teal", 4.0);
            of_sheet(sheet.clone().add(linked((0..12).map(|i| hoop(f64::from(i) * 9.0)))))
        }),
    ]
}

/// Functions that cannot return a fault: no budget ends them.
fn pure() -> Vec<(&'static str, Ask)> {
    vec![
        value("segments", |path| path.segments().count()),
        value("contours", |path| path.contours().iter().map(|one| one.segments().count()).sum::<usize>()),
        value("bounds", Path::bounds),
        value("control_bounds", Path::control_bounds),
        value("inside", |path| path.inside((3.0, 4.0))),
        value("winding", |path| path.winding((3.0, 4.0))),
        value("distance", |path| path.distance((90.0, 4.0))),
        value("signed_area", |path| path.contours().iter().map(Contour::signed_area).collect::<Vec<_>>()),
        value("direction", |path| path.contours().iter().map(Contour::direction).collect::<Vec<_>>()),
        value("contour_length", |path| path.contours().iter().map(Contour::length).collect::<Vec<_>>()),
        value("flattened", |path| hashed(&path.flattened(1e-3).data())),
        value("data", |path| path.data()),
        value("reversed", |path| path.reversed().data()),
        value("moved", |path| path.moved((1.0, 2.0)).data()),
        value("stations", |path| {
            let all = path.contours().iter().map(|contour| {
                let survey = contour.survey();
                let points: Vec<Point> = survey.every(0.5).map(|station| station.point()).collect();
                let middle = survey.station(survey.length() * 0.5).map(|station| station.tangent());
                let near = survey.nearest((1.0, 2.0)).map(|station| station.distance());
                (points, middle, near, survey.section(1.0, 20.0).data())
            });
            all.collect::<Vec<_>>()
        }),
        value("points", |_| wheel(9.0, 1.0, deg(0.0)).points(30_000)),
        page("items", |sheet| {
            Ok(hashed(&sheet.items().map(|placed| placed.painted_bounds()).collect::<Vec<_>>()))
        }),
        page("items_at", |sheet| {
            let hit = sheet.items_at((3.0, 4.0)).map(|hit| (hit.address(), hit.point)).collect::<Vec<_>>();
            Ok(hashed(&hit))
        }),
        page("grips", |sheet| Ok(hashed(&sheet.items().flat_map(|placed| placed.grips()).count()))),
    ]
}

/// A budget that runs out after some looks, and a count of its looks.
fn after(looks: usize) -> (Budget, Arc<AtomicUsize>) {
    let asked = Arc::new(AtomicUsize::new(0));
    let count = Arc::clone(&asked);
    let ask = move || (count.fetch_add(1, Ordering::Relaxed) >= looks).then(|| Stopped::new("enough"));
    (Budget::new(ask), asked)
}

fn subjects() -> Vec<Subject> {
    let mut dice = Dice::new(3, "scribble");
    let mut scribble = |n: usize| {
        Path::closed((0..n).map(|_| polar(deg(dice.between(0.0, 360.0)), dice.between(0.0, 60.0))))
    };
    let rim = |n: usize| {
        Path::closed((0..n).map(|i| polar(turns(i as f64 / n as f64), 50.0 + f64::from(i as u32 % 7))))
    };
    let paths = [
        ("empty", Path::empty()),
        ("faulty", circle((0.0, 0.0), f64::NAN)),
        ("hoop", ring((0.0, 0.0), 60.0, 30.0)),
        ("scribble", scribble(70)),
        ("long rim", rim(1_500)),
        (
            "swirl",
            start((0.0, 0.0)).cubic((90.0, 10.0), (-40.0, 70.0), (20.0, -60.0)).arc_on((0.0, 0.0)).close(),
        ),
        (
            "hoops",
            (0..40).fold(Path::empty(), |all, i| {
                all.and(&circle((f64::from(i % 8) * 9.0 - 30.0, f64::from(i / 8) * 9.0), 7.0))
            }),
        ),
    ];
    paths.into_iter().map(|(name, path)| Subject::new(name, path)).collect()
}

#[test]
fn no_budget_changes_an_answer() {
    for subject in subjects() {
        let of = subject.name;
        for (name, ask) in pure() {
            let (budget, asked) = after(0);
            assert_eq!(told(&budget.within(|| ask(&subject))), told(&ask(&subject)), "{name} of {of}");
            assert_eq!(asked.load(Ordering::Relaxed), 0, "{name} of {of}");
        }
        limited().iter().for_each(|(name, ask)| assert_answers_or_stops(name, ask, &subject));
    }
    let none = Subject::new("nothing", Path::empty());
    shapes().iter().for_each(|(name, ask)| assert_answers_or_stops(name, ask, &none));
}

/// Asks with budgets that run out ever later, until one is enough.
fn assert_answers_or_stops(name: &str, ask: &Ask, subject: &Subject) {
    let of = subject.name;
    let answer = ask(subject);
    let is_answer = |given: &Answer| told(given) == told(&answer);
    let is_stopped = |given: &Answer| matches!(given, Err(fault) if matches!(fault.kind(), FaultKind::Stopped(why) if why.what == "enough"));
    let (used_up, _) = after(0);
    assert!(used_up.ask().is_some());
    let given = used_up.within(|| ask(subject));
    assert!(is_stopped(&given) || (is_answer(&given) && answer.is_err()), "{name} of {of}: {given:?}");
    let mut looks = (0, 1);
    loop {
        let given = after(looks.0).0.within(|| ask(subject));
        if is_answer(&given) {
            return;
        }
        assert!(is_stopped(&given), "{name} of {of} after {} looks: {given:?}, not {answer:?}", looks.0);
        looks = (looks.1, looks.0 + looks.1);
    }
}

/// Every function that does its work within a budget is asked above.
#[test]
fn every_limited_function_is_asked() {
    let known: BTreeSet<&str> = limited().iter().chain(&shapes()).map(|(name, _)| *name).collect();
    let mut missing = BTreeSet::new();
    let root = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../crates/chordane/src");
    let mut folders = vec![root];
    while let Some(folder) = folders.pop() {
        for entry in std::fs::read_dir(folder).unwrap() {
            let file = entry.unwrap().path();
            if file.is_dir() {
                folders.push(file);
                continue;
            }
            if file.ends_with("ground/budget.rs") {
                continue;
            }
            let text = std::fs::read_to_string(&file).unwrap();
            for call in ["limited(", "reshaped("] {
                for (at, _) in text.match_indices(call) {
                    let rest = text[at + call.len()..].trim_start();
                    let Some(rest) = rest.strip_prefix('"') else { continue };
                    let name = rest.split('"').next().unwrap_or_default();
                    if !known.contains(name) {
                        missing.insert(name.to_owned());
                    }
                }
            }
        }
    }
    assert_eq!(missing, BTreeSet::new());
}
