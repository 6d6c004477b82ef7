//! What the tests of the live page share: the program at work, and a browser that shows its page.

use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

use fantoccini::actions::{
    Actions, InputSource, KeyAction, KeyActions, MouseActions, PointerAction, TouchActions,
};
use fantoccini::{Client, ClientBuilder};
use serde_json::{Value, json};
use tokio::runtime::Runtime;

/// What is waited for comes within this time, or the test fails.
const PATIENCE: Duration = Duration::from_secs(30);

/// The program with its page.
pub(crate) struct Live {
    child: Child,
    /// The address of its page, with the token.
    pub(crate) address: String,
}

impl Live {
    pub(crate) fn start(arguments: &[&str]) -> Self {
        Self::start_with(arguments, Stdio::null())
    }

    /// At a port of one's own choice.
    pub(crate) fn start_at(arguments: &[&str], port: u16) -> Self {
        Self::start_all(arguments, port, Stdio::null())
    }

    pub(crate) fn start_with(arguments: &[&str], input: Stdio) -> Self {
        Self::start_all(arguments, 0, input)
    }

    fn start_all(arguments: &[&str], port: u16, input: Stdio) -> Self {
        let mut child = Command::new(program())
            .args(arguments)
            .args(["--port", &port.to_string()])
            .stdin(input)
            .stderr(Stdio::piped())
            .spawn()
            .expect("the program starts");
        let mut lines = BufReader::new(child.stderr.take().unwrap()).lines();
        let address = lines
            .by_ref()
            .map(|line| line.expect("the program says something"))
            .find_map(|line| line.strip_prefix("open ").map(str::to_owned))
            .expect("the program says where its page is");
        // Whatever else it says is read, so that it is never kept waiting.
        std::thread::spawn(move || lines.for_each(drop));
        Self { child, address }
    }

    pub(crate) fn of(score: &Path) -> Self {
        Self::start(&["live", score.to_str().unwrap()])
    }

    pub(crate) fn host(&self) -> &str {
        self.address.trim_start_matches("http://").split('/').next().unwrap()
    }

    pub(crate) fn token(&self) -> &str {
        self.address.rsplit('#').next().unwrap()
    }

    pub(crate) fn process(&self) -> u32 {
        self.child.id()
    }

    /// Kills the program at once.
    pub(crate) fn kill(mut self) {
        self.child.kill().unwrap();
        let _ = self.child.wait();
    }
}

impl Drop for Live {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

/// The program under test; figures can be taken of one that was built otherwise, named by `CHORDANE_PROGRAM`.
fn program() -> std::path::PathBuf {
    std::env::var_os("CHORDANE_PROGRAM").map_or_else(|| assert_cmd::cargo::cargo_bin("chordane"), Into::into)
}

/// A page in a browser.
pub(crate) struct Page {
    runtime: Runtime,
    client: Client,
    driver: Child,
}

impl Page {
    pub(crate) fn open(address: &str) -> Self {
        Self::open_at(address, (1280, 800))
    }

    pub(crate) fn open_at(address: &str, (width, height): (u32, u32)) -> Self {
        let port = std::net::TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap().port();
        let driver = Command::new("chromedriver")
            .arg(format!("--port={port}"))
            .stdout(Stdio::null())
            .stderr(Stdio::null())
            .spawn()
            .expect("chromedriver is installed");
        let runtime = tokio::runtime::Builder::new_current_thread().enable_all().build().unwrap();
        let arguments = [
            "--headless=new".to_owned(),
            "--no-sandbox".to_owned(),
            "--disable-gpu".to_owned(),
            "--disable-background-networking".to_owned(),
            format!("--window-size={width},{height}"),
        ];
        let options = json!({"goog:chromeOptions": {"args": arguments}});
        let client = runtime.block_on(async {
            let begin = Instant::now();
            loop {
                let made = ClientBuilder::new(connector())
                    .capabilities(options.as_object().unwrap().clone())
                    .connect(&format!("http://127.0.0.1:{port}"))
                    .await;
                match made {
                    Ok(client) => break client,
                    Err(error) if begin.elapsed() > PATIENCE => panic!("no browser: {error}"),
                    Err(_) => tokio::time::sleep(Duration::from_millis(100)).await,
                }
            }
        });
        let page = Self { runtime, client, driver };
        page.go(address);
        page
    }

    pub(crate) fn go(&self, address: &str) {
        self.runtime.block_on(self.client.goto(address)).unwrap();
    }

    /// What a script gives.
    pub(crate) fn run(&self, script: &str) -> Value {
        self.runtime.block_on(self.client.execute(script, Vec::new())).unwrap()
    }

    /// What a script gives that calls its last argument when it is done.
    pub(crate) fn run_long(&self, script: &str) -> Value {
        self.runtime.block_on(self.client.execute_async(script, Vec::new())).unwrap()
    }

    /// Waits until a script gives something that is true.
    pub(crate) fn wait(&self, condition: &str) {
        wait(condition, || {
            let value = self.run(&format!("return Boolean({condition})"));
            value == Value::Bool(true)
        });
    }

    /// Waits until the picture is there.
    pub(crate) fn wait_for_picture(&self) {
        self.wait("document.querySelector('#stage')?.dataset.serial");
    }

    pub(crate) fn text(&self, selector: &str) -> String {
        let script = format!("return document.querySelector({}).textContent", json!(selector));
        self.run(&script).as_str().unwrap().to_owned()
    }

    /// Clicks an element with the pointer, where it is on the screen.
    pub(crate) fn click(&self, selector: &str) {
        self.wait(&format!(
            "document.querySelector({0}) && !document.querySelector({0}).disabled",
            json!(selector)
        ));
        let script = format!(
            "const one = document.querySelector({}); one.scrollIntoView({{ block: 'nearest' }}); \
             const box = one.getBoundingClientRect(); return [box.left + box.width / 2, box.top + box.height / 2]",
            json!(selector)
        );
        let at = self.run(&script);
        self.click_at((at[0].as_f64().unwrap(), at[1].as_f64().unwrap()));
    }

    /// Where a place of a sheet of such a size is in the window.
    pub(crate) fn place(&self, sheet: (f64, f64), at: (f64, f64)) -> (f64, f64) {
        let paper = self.run("const box = document.querySelector('#paper').getBoundingClientRect(); return [box.left, box.top, box.width, box.height]");
        let side = |i: usize| paper[i].as_f64().unwrap();
        (side(0) + at.0 / sheet.0 * side(2), side(1) + at.1 / sheet.1 * side(3))
    }

    fn act(&self, actions: Vec<PointerAction>) {
        let mouse = actions.into_iter().fold(MouseActions::new("mouse".to_owned()), InputSource::then);
        self.runtime.block_on(self.client.perform_actions(mouse)).unwrap();
    }

    fn to(at: (f64, f64)) -> PointerAction {
        let (x, y) = at;
        PointerAction::MoveTo { duration: Some(Duration::from_millis(60)), x, y }
    }

    /// The pointer there.
    pub(crate) fn hover(&self, at: (f64, f64)) {
        self.act(vec![Self::to((at.0 - 1.0, at.1)), Self::to(at)]);
    }

    /// The pointer over a place of the sheet that can be taken hold of.
    pub(crate) fn hover_grip(&self, at: (f64, f64)) {
        self.hover(at);
        self.wait("document.querySelector('#overlay .grip:not(.stuck)')");
    }

    /// Drags from one place to another; places of the window.
    pub(crate) fn drag(&self, from: (f64, f64), to: (f64, f64)) {
        self.hover_grip(from);
        self.pull(from, to);
    }

    /// Presses at one place, moves to another, and lets go.
    pub(crate) fn pull(&self, from: (f64, f64), to: (f64, f64)) {
        let middle = (0.5 * (from.0 + to.0), 0.5 * (from.1 + to.1));
        self.act(vec![Self::to(from), PointerAction::Down { button: 0 }, Self::to(middle), Self::to(to)]);
        self.act(vec![PointerAction::Up { button: 0 }]);
    }

    pub(crate) fn click_at(&self, at: (f64, f64)) {
        self.act(vec![Self::to(at), PointerAction::Down { button: 0 }, PointerAction::Up { button: 0 }]);
    }

    /// Fingers that go down together, each along its places of the window, and are lifted together.
    pub(crate) fn fingers(&self, ways: &[&[(f64, f64)]]) {
        let finger = |(number, way): (usize, &&[(f64, f64)])| {
            let (first, rest) = way.split_first().unwrap();
            let begin = TouchActions::new(format!("finger {number}"))
                .then(Self::to(*first))
                .then(PointerAction::Down { button: 0 });
            let moved = rest.iter().fold(begin, |actions, at| actions.then(Self::to(*at)));
            moved.then(PointerAction::Up { button: 0 })
        };
        let mut all = ways.iter().enumerate().map(finger);
        let first: Actions = all.next().unwrap().into();
        let actions = all.fold(first, Actions::and);
        self.runtime.block_on(self.client.perform_actions(actions)).unwrap();
    }

    /// Clicks at once at a place where the pointer was not before, and drags from there.
    pub(crate) fn snatch(&self, from: (f64, f64), to: (f64, f64)) {
        let there = PointerAction::MoveTo { duration: Some(Duration::ZERO), x: from.0, y: from.1 };
        self.act(vec![
            there,
            PointerAction::Down { button: 0 },
            Self::to(to),
            PointerAction::Up { button: 0 },
        ]);
    }

    /// The same without letting go.
    pub(crate) fn snatch_and_hold(&self, from: (f64, f64), to: (f64, f64)) {
        let there = PointerAction::MoveTo { duration: Some(Duration::ZERO), x: from.0, y: from.1 };
        self.act(vec![there, PointerAction::Down { button: 0 }, Self::to(to)]);
    }

    pub(crate) fn release(&self) {
        self.act(vec![PointerAction::Up { button: 0 }]);
    }

    /// Drags from one place to another while a key is held.
    pub(crate) fn drag_with(&self, key: char, from: (f64, f64), to: (f64, f64)) {
        self.hover_grip(from);
        let down = KeyActions::new("keys".to_owned()).then(KeyAction::Down { value: key });
        self.runtime.block_on(self.client.perform_actions(down)).unwrap();
        self.pull(from, to);
        let up = KeyActions::new("keys".to_owned()).then(KeyAction::Up { value: key });
        self.runtime.block_on(self.client.perform_actions(up)).unwrap();
    }

    pub(crate) fn click_twice(&self, at: (f64, f64)) {
        let (down, up) = (PointerAction::Down { button: 0 }, PointerAction::Up { button: 0 });
        self.act(vec![Self::to(at), down.clone(), up.clone(), down, up]);
    }

    /// Presses keys, one after the other; held ones are kept down meanwhile.
    pub(crate) fn keys(&self, held: &[char], keys: &[char]) {
        let mut actions = KeyActions::new("keys".to_owned());
        for key in held {
            actions = actions.then(KeyAction::Down { value: *key });
        }
        for key in keys {
            actions = actions.then(KeyAction::Down { value: *key }).then(KeyAction::Up { value: *key });
        }
        for key in held {
            actions = actions.then(KeyAction::Up { value: *key });
        }
        self.runtime.block_on(self.client.perform_actions(actions)).unwrap();
    }

    /// Presses a key `count` times, `between` milliseconds apart.
    pub(crate) fn burst(&self, key: char, count: usize, between: u64) {
        let mut actions = KeyActions::new("keys".to_owned());
        for _ in 0..count {
            actions = actions
                .then(KeyAction::Down { value: key })
                .then(KeyAction::Up { value: key })
                .then(KeyAction::Pause { duration: Duration::from_millis(between) });
        }
        self.runtime.block_on(self.client.perform_actions(actions)).unwrap();
    }

    /// Closes the line, and opens no other until it is joined again.
    pub(crate) fn cut(&self) {
        self.run(
            "window.Whole = window.WebSocket;
                window.WebSocket = class {
                static OPEN = 1; static CLOSED = 3;
                readyState = 3;
                addEventListener(kind, act) { if (kind === 'close') setTimeout(act, 20); }
                close() {}
            };
                window.dispatchEvent(new Event('offline'))",
        );
        self.wait("document.body.dataset.line === 'closed'");
    }

    /// Opens the line again.
    pub(crate) fn join(&self) {
        self.run("window.WebSocket = window.Whole; window.dispatchEvent(new Event('online'))");
        self.wait("document.body.dataset.line === 'open'");
    }

    /// Keeps a picture of the page where `CHORDANE_KEEP_SHEETS` names a folder.
    pub(crate) fn keep(&self, name: &str) {
        if let Some(folder) = std::env::var_os("CHORDANE_KEEP_SHEETS") {
            let bytes = self.runtime.block_on(self.client.screenshot()).unwrap();
            std::fs::write(Path::new(&folder).join(format!("{name}.png")), bytes).unwrap();
        }
    }
}

impl Drop for Page {
    fn drop(&mut self) {
        let _ = self.runtime.block_on(self.client.clone().close());
        let _ = self.driver.kill();
        let _ = self.driver.wait();
    }
}

fn connector() -> hyper_util::client::legacy::connect::HttpConnector {
    hyper_util::client::legacy::connect::HttpConnector::new()
}

/// Waits until something is so.
pub(crate) fn wait(what: &str, is_so: impl Fn() -> bool) {
    let begin = Instant::now();
    while !is_so() {
        assert!(begin.elapsed() < PATIENCE, "this never came: {what}");
        std::thread::sleep(Duration::from_millis(15));
    }
}

/// Waits until a file holds something.
pub(crate) fn wait_for_file(file: &Path, is_so: impl Fn(&str) -> bool) -> String {
    wait(&file.display().to_string(), || std::fs::read_to_string(file).is_ok_and(|text| is_so(&text)));
    std::fs::read_to_string(file).unwrap()
}
