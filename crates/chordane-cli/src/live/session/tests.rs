//! The session without a server: what is asked for, and what is shown then.

use std::collections::HashMap;
use std::sync::mpsc::{self, Sender};
use std::time::{Duration, Instant};

use chordane::prelude::*;
use chordane_score::{Limits, Runner, Settings, Stage, Words};
use indicatif::ProgressBar;
use tokio::sync::mpsc::{UnboundedReceiver, unbounded_channel};
use tokio::sync::watch;

use super::{Job, Session, What};
use crate::live::export::Export;
use crate::live::flags::Flags;
use crate::live::message::{Asked, FileState};
use crate::live::paper::Paper;
use crate::live::runs::Subject;
use crate::live::shown::Shown;
use crate::web::Outlet;

/// A session at work.
pub(super) struct Desk {
    pub(super) jobs: Sender<Job>,
    pub(super) shown: watch::Receiver<Shown>,
}

impl Desk {
    pub(super) fn ask(&self, what: What) -> UnboundedReceiver<String> {
        let (answer, answers) = unbounded_channel();
        self.jobs.send(Job { page: 1, what, answer }).unwrap();
        answers
    }

    pub(super) fn wait(&self, what: &str, is_so: impl Fn(&Shown) -> bool) -> Shown {
        let begin = Instant::now();
        while !is_so(&self.shown.borrow()) {
            assert!(begin.elapsed() < Duration::from_secs(30), "this never came: {what}");
            std::thread::sleep(Duration::from_millis(5));
        }
        self.shown.borrow().clone()
    }

    fn knob(&self, name: &str, value: &str) {
        self.ask(What::Asked(Asked::Knob { name: name.to_owned(), value: value.to_owned(), more: false }));
    }
}

/// Works on something while a test asks for things.
pub(super) fn with_session(subject: Subject<'_>, text: &str, paper: Option<Paper>, test: impl FnOnce(&Desk)) {
    with_all(subject, text, paper, Settings::new(), test);
}

fn with_settings(subject: Subject<'_>, text: &str, settings: Settings, test: impl FnOnce(&Desk)) {
    with_all(subject, text, None, settings, test);
}

fn with_all(
    subject: Subject<'_>,
    text: &str,
    paper: Option<Paper>,
    settings: Settings,
    test: impl FnOnce(&Desk),
) {
    let (jobs, taken) = mpsc::channel();
    let (session, shown, slow) = Session::new(subject, text, paper, settings, (Flags::default(), taken));
    drop(slow);
    std::thread::scope(|scope| {
        scope.spawn(|| session.work());
        // The session ends when nobody can ask for anything any more.
        let desk = Desk { jobs, shown };
        test(&desk);
        drop(desk);
    });
}

fn svg(shown: &Shown) -> String {
    shown.picture.as_ref().map_or_else(String::new, |picture| picture.svg.to_string())
}

fn document() -> Subject<'static> {
    Subject::Document { name: "kite.svg".to_owned(), limits: Limits::default() }
}

#[test]
fn a_score_that_is_compiled_in_has_knobs_and_is_saved() {
    let runner = Runner::new(|stage: &mut Stage| {
        let radius = stage.knob("radius", 30.0, 1.0, 40.0);
        sheet(100.0, 80.0).add(circle((50.0, 40.0), radius).fill("teal"))
    });
    let subject = Subject::Compiled { name: "vent".to_owned(), runner: &runner };
    with_session(subject, "", None, |desk| {
        let first = desk.wait("a picture", |shown| shown.picture.is_some());
        assert_eq!((first.knobs[0].name.as_str(), first.knobs[0].value.as_str()), ("radius", "30"));
        desk.knob("radius", "12");
        let second = desk.wait("another picture", |shown| svg(shown) != svg(&first));
        assert_eq!(second.knobs[0].value, "12");
        // Beyond its range it is said so, and the score is run with what it starts with.
        desk.knob("radius", "99");
        let third = desk.wait("a note", |shown| !shown.run.notes.is_empty());
        assert!(third.run.notes[0].contains("radius"), "{:?}", third.run.notes);
        desk.ask(What::Asked(Asked::Undo));
        desk.wait("the knob before", |shown| svg(shown) == svg(&second));
        let (to, from) = mpsc::channel();
        let (out, mut pieces) = Outlet::pair();
        let export = Export::asked("vent.svg", &HashMap::new()).unwrap();
        desk.ask(What::Export(export, out, ProgressBar::hidden(), to));
        assert_eq!(from.recv().unwrap(), None);
        let made = pieces.blocking_recv().unwrap();
        assert!(String::from_utf8_lossy(&made).contains("#008080"));
        // There is no text to write knobs into.
        let mut answers = desk.ask(What::Asked(Asked::KeepKnobs));
        let told = answers.blocking_recv().unwrap();
        assert!(told.contains("there is no readable score to write this into"), "{told}");
        // What they are set to is not lost.
        desk.ask(What::Asked(Asked::Phase { phase: 0.5 }));
        let shown = desk.wait("another moment", |shown| shown.time.phase == 0.5);
        assert_eq!(shown.knobs[0].value, "12");
    });
}

#[test]
fn a_document_is_shown_in_its_own_units_and_keeps_its_last_picture() {
    let text = "<svg xmlns='http://www.w3.org/2000/svg' width='200' height='100' viewBox='1000 500 40 20'><circle cx='1010' cy='510' r='5' fill='teal'/></svg>";
    with_session(document(), text, None, |desk| {
        let first = desk.wait("a picture", |shown| shown.picture.is_some());
        let picture = first.picture.clone().unwrap();
        assert_eq!((picture.corners, picture.size), ([[1000.0, 500.0], [1040.0, 520.0]], [200.0, 100.0]));
        let mut answers = desk.ask(What::Asked(Asked::Hover { at: [1012.0, 511.0], reach: 0.5, way: 0 }));
        let told = answers.blocking_recv().unwrap();
        assert!(told.contains("\"figures\":\"4 vertices · closed · 10 × 10"), "{told}");
        let broken = text.replace("/></svg>", "></svg>");
        desk.ask(What::Asked(Asked::Edit { base: first.version, text: broken }));
        let second = desk.wait("a mistake", |shown| shown.mistake.is_some());
        assert_eq!(svg(&second), svg(&first));
        desk.ask(What::Asked(Asked::Undo));
        desk.wait("no mistake", |shown| shown.mistake.is_none());
    });
}

#[test]
fn a_picture_that_is_changed_is_read_again() {
    let folder = tempfile::tempdir().unwrap();
    let save = |colour: &str| {
        let page = sheet(8.0, 8.0).ground(colour);
        page.save(folder.path().join("cloth.png")).unwrap();
    };
    save("teal");
    let text = "sheet(90, 60).add(rectangle([10, 10], 40, 30).fill(picture(\"cloth.png\")))";
    let subject =
        Subject::Score { name: "sail.chord".to_owned(), limits: Limits::default(), words: Words::new() };
    let pictures = chordane_score::Pictures::new().below(folder.path());
    with_settings(subject, text, Settings::new().pictures(pictures), |desk| {
        let first = desk.wait("a picture", |shown| shown.picture.is_some());
        save("gold");
        desk.ask(What::Pictures);
        desk.wait("another picture", |shown| svg(shown) != svg(&first));
    });
}

#[test]
fn what_cannot_be_written_stays_and_is_written_later() {
    let folder = tempfile::tempdir().unwrap();
    let place = folder.path().join("loft");
    std::fs::create_dir(&place).unwrap();
    let file = place.join("hem.chord");
    let text = "sheet(90, 60)";
    std::fs::write(&file, text).unwrap();
    let subject =
        Subject::Score { name: "hem.chord".to_owned(), limits: Limits::default(), words: Words::new() };
    with_session(subject, text, Some(Paper::new(&file, text)), |desk| {
        let first = desk.wait("a picture", |shown| shown.picture.is_some());
        std::fs::remove_dir_all(&place).unwrap();
        desk.ask(What::Asked(Asked::Edit { base: first.version, text: "sheet(91, 60)".to_owned() }));
        let second = desk.wait("not saved", |shown| shown.file.0 == FileState::Unsaved);
        assert!(second.file.1.starts_with("not saved: "), "{}", second.file.1);
        assert_eq!(second.picture.as_ref().unwrap().size, [91.0, 60.0]);
        std::fs::create_dir(&place).unwrap();
        desk.ask(What::Asked(Asked::Edit { base: second.version, text: "sheet(92, 60)".to_owned() }));
        desk.wait("saved", |shown| shown.file.0 == FileState::Saved && shown.text.contains("92"));
        assert_eq!(std::fs::read_to_string(&file).unwrap(), "sheet(92, 60)");
        // Another text in the same line, from outside.
        std::fs::write(&file, "sheet(93, 61)").unwrap();
        desk.ask(What::Outside { whole: false });
        let third = desk.wait("the other text", |shown| shown.text.contains("93"));
        // And from both sides at once: it is asked about, and nothing is written.
        std::fs::write(&file, "sheet(94, 62)").unwrap();
        desk.ask(What::Asked(Asked::Edit { base: third.version, text: "sheet(95, 63)".to_owned() }));
        desk.wait("a question", |shown| shown.file.0 == FileState::Asking);
        assert_eq!(std::fs::read_to_string(&file).unwrap(), "sheet(94, 62)");
        desk.ask(What::Asked(Asked::Keep { own: true }));
        desk.wait("saved", |shown| shown.file.0 == FileState::Saved);
        let holds = |text: &str| {
            let begin = Instant::now();
            while std::fs::read_to_string(&file).unwrap() != text {
                assert!(begin.elapsed() < Duration::from_secs(30), "it is never written");
                std::thread::sleep(Duration::from_millis(5));
            }
        };
        holds("sheet(95, 63)");
        // Asked about, and then the file is as it was before: there is nothing to ask any more.
        let fourth = desk.wait("its own text", |shown| shown.text.contains("95"));
        std::fs::write(&file, "sheet(96, 64)").unwrap();
        desk.ask(What::Asked(Asked::Edit { base: fourth.version, text: "sheet(97, 65)".to_owned() }));
        desk.wait("a question", |shown| shown.file.0 == FileState::Asking);
        std::fs::write(&file, "sheet(95, 63)").unwrap();
        desk.ask(What::Outside { whole: false });
        desk.wait("no question", |shown| shown.file.0 == FileState::Saved);
        holds("sheet(97, 65)");
    });
}

#[test]
fn knobs_with_computed_names_are_not_lost_when_the_others_are_kept() {
    let text = "let wide = knob(\"wide\", 90, 10, 200);\nlet high = knob(\"hi\" + \"gh\", 60, 10, 200);\nsheet(wide, high)";
    let subject =
        Subject::Score { name: "sail.chord".to_owned(), limits: Limits::default(), words: Words::new() };
    with_session(subject, text, None, |desk| {
        desk.wait("a picture", |shown| shown.picture.is_some());
        desk.knob("wide", "120");
        desk.knob("high", "80");
        let is_set =
            |shown: &Shown| shown.picture.as_ref().is_some_and(|picture| picture.size == [120.0, 80.0]);
        desk.wait("both", is_set);
        desk.ask(What::Asked(Asked::KeepKnobs));
        let shown = desk.wait("the text", |shown| shown.text.contains("\"wide\", 120,"));
        assert!(is_set(&shown));
        let values: Vec<&str> = shown.knobs.iter().map(|knob| knob.value.as_str()).collect();
        assert_eq!(values, ["120", "80"]);
        // One step back.
        desk.ask(What::Asked(Asked::Undo));
        let shown = desk.wait("the text before", |shown| *shown.text == *text);
        assert!(is_set(&shown));
    });
}

#[test]
fn a_mend_of_a_text_that_has_changed_since_is_refused() {
    let text = "sheet(400, 300).add(start([50, 50]).line([300, 60]).line([200, 250]).open().fill(\"gold\").stroke(\"teal\", 4))";
    let subject =
        Subject::Score { name: "sail.chord".to_owned(), limits: Limits::default(), words: Words::new() };
    with_session(subject, text, None, |desk| {
        let found =
            |shown: &Shown| shown.complete && shown.findings.first().is_some_and(|finding| finding.click);
        let first = desk.wait("a finding", found);
        // Both are asked for before anything is looked over again.
        let other = text.replace("gold", "tan");
        desk.ask(What::Asked(Asked::Edit { base: first.version, text: other.clone() }));
        let mut answers = desk.ask(What::Asked(Asked::Mend { finding: 0 }));
        let told = answers.blocking_recv().unwrap();
        assert!(told.contains("the score has changed since; wait for its findings"), "{told}");
        desk.wait("a finding", |shown| found(shown) && *shown.text == *other);
        desk.ask(What::Asked(Asked::Mend { finding: 0 }));
        desk.wait("the mended text", |shown| *shown.text == other.replace(".open()", ".close()"));
    });
}

#[test]
fn a_drag_that_is_given_up_leaves_the_text_as_it_was() {
    let text = "sheet(200, 100).add(closed([[20, 20], [150, 30], [60, 90]]).fill(\"teal\"))";
    let subject =
        Subject::Score { name: "sail.chord".to_owned(), limits: Limits::default(), words: Words::new() };
    with_session(subject, text, None, |desk| {
        desk.wait("a picture", |shown| shown.picture.is_some());
        let grab =
            || desk.ask(What::Asked(Asked::Grab { at: [150.0, 30.0], reach: 3.0, way: 0, knob: None }));
        let drag = |x: f64| desk.ask(What::Asked(Asked::Drag { to: [x, 44.0], within: 0.5 }));
        // Answers go to the page that took hold.
        let mut answers = grab();
        drag(160.0);
        let grabbed = answers.blocking_recv().unwrap();
        assert!(grabbed.contains("\"tell\":\"grabbed\"") && grabbed.contains("vertex 1"), "{grabbed}");
        let told = answers.blocking_recv().unwrap();
        assert!(told.contains("\"at\":[160.0,44.0],\"told\":null"), "{told}");
        desk.wait("the other number", |shown| shown.text.contains("[160, 44]"));
        desk.ask(What::Asked(Asked::LetGo { keep: false }));
        desk.wait("the text before", |shown| *shown.text == *text);
        grab();
        drag(165.0);
        drag(170.0);
        // A page that goes away in the middle keeps what it has.
        desk.ask(What::Left);
        let shown = desk.wait("the other number", |shown| shown.text.contains("[170, 44]"));
        assert_eq!(shown.history.0.as_deref(), Some("dragging"));
        desk.ask(What::Asked(Asked::Undo));
        desk.wait("the text before", |shown| *shown.text == *text);
    });
}

/// A page that presses twice and then goes away does not keep others waiting.
#[test]
fn a_second_press_ends_the_first_drag() {
    let text = "sheet(200, 100).add(closed([[20, 20], [150, 30], [60, 90]]).fill(\"teal\"))";
    let subject =
        Subject::Score { name: "sail.chord".to_owned(), limits: Limits::default(), words: Words::new() };
    with_session(subject, text, None, |desk| {
        desk.wait("a picture", |shown| shown.picture.is_some());
        for x in [150.0, 20.0] {
            let at = [x, if x == 20.0 { 20.0 } else { 30.0 }];
            desk.ask(What::Asked(Asked::Grab { at, reach: 3.0, way: 0, knob: None }));
            desk.ask(What::Asked(Asked::Drag { to: [x + 10.0, 44.0], within: 0.5 }));
        }
        desk.ask(What::Left);
        desk.wait("both vertices moved", |shown| shown.text.contains("[[30, 44], [160, 44], [60, 90]]"));
        desk.ask(What::Asked(Asked::Undo));
        desk.wait("the first vertex moved", |shown| shown.text.contains("[[20, 20], [160, 44], [60, 90]]"));
    });
}

/// Text typed between two presses of an arrow key stays: the second press starts from it.
#[test]
fn arrow_keys_keep_text_typed_between_presses() {
    let text = "sheet(90, 60).add(circle([20, 30], 5).fill(\"teal\"))";
    let subject =
        Subject::Score { name: "vent.chord".to_owned(), limits: Limits::default(), words: Words::new() };
    with_session(subject, text, None, |desk| {
        let press = |at: [f64; 2]| {
            let to = [at[0] + 1.0, at[1]];
            desk.ask(What::Asked(Asked::Nudge { grip: 0, hold: 0, at, reach: 0.5, to }));
        };
        desk.wait("a picture", |shown| shown.picture.is_some());
        press([20.0, 30.0]);
        press([21.0, 30.0]);
        let moved = desk.wait("two steps", |shown| shown.text.contains("[22, 30]"));
        let text = format!("{} // vent", moved.text.replace("teal", "gold"));
        desk.ask(What::Asked(Asked::Edit { base: moved.version, text }));
        desk.wait("the typed text", |shown| shown.text.contains("gold"));
        press([22.0, 30.0]);
        let both = desk.wait("a third step", |shown| shown.text.contains("[23, 30]"));
        assert!(both.text.contains("gold") && both.text.ends_with("// vent"), "{}", both.text);
    });
}
