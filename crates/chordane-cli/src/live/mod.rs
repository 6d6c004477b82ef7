//! `chordane live`: a page on this machine that shows a score while it is written.
//!
//! One thread works: it takes what pages ask for in order, changes the text or what the score is run with, runs it, and publishes what came of it. Another
//! serves the pages: each is told what is news to it, and what comes faster than a page can take is left out.

mod assets;
mod desk;
mod findings;
mod flags;
mod guard;
mod message;
mod outside;
mod paper;
mod places;
mod runs;
mod save;
mod serve;
mod session;
mod shown;
mod strip;
mod text;

use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::path::{Path, PathBuf};
use std::sync::mpsc::{self, Sender};

use chordane::ground::Named;
use chordane::picture::BoneLayer;
use chordane_score::{Limits, Runner, words};
use serde_json::json;
use tokio::net::TcpListener;
use tokio::sync::watch;

use crate::failure::Failure;
use crate::input::{Input, Origin};
use crate::options::{LiveFileOptions, LiveOptions};
use crate::output::say;
use flags::Flags;
use guard::Guard;
use message::Told;
use paper::Paper;
use runs::Subject;
use serve::Served;
use session::{Job, Session};

/// The port where none is asked for, or the next ones that are free.
const PORT: u16 = 4717;
const PORTS: u16 = 20;

/// A text that is longer than this is not shown in a page.
const LONGEST: usize = 8 << 20;

/// Shows the score or document in a file.
pub(crate) fn file(options: &LiveFileOptions) -> Result<(), Failure> {
    let file = &options.input;
    if file == Path::new("-") {
        return Err(Failure::call(
            "standard input cannot be watched",
            "name a .chord or .svg file; it is shown, and written when it is edited in the page",
        ));
    }
    let limits = options.limits.limits();
    let folder = file.parent().map_or_else(PathBuf::new, Path::to_owned);
    let (subject, text) = match Input::read(file)? {
        Input::Score(name, text) => (Subject::Score { name, folder, limits }, text),
        Input::Svg(name, bytes) => {
            let text = String::from_utf8(bytes).map_err(|_| {
                Failure::input(format!("{name} is not text in UTF-8"), "save the document as UTF-8")
            })?;
            (Subject::Document { name, limits }, text)
        }
    };
    if text.len() > LONGEST {
        let told = format!("{} is larger than {} MB", file.display(), LONGEST >> 20);
        return Err(Failure::input(told, "draw it with chordane draw"));
    }
    let paper = Paper::new(file, &text);
    serve(&options.live, subject, &text, Some(paper), Some(limits))
}

/// Shows a score that is compiled in.
pub(crate) fn score(options: &LiveOptions, origin: &Origin, runner: &Runner<'_>) -> Result<(), Failure> {
    serve(options, Subject::Compiled { name: origin.name.clone(), runner }, "", None, None)
}

fn serve(
    options: &LiveOptions,
    subject: Subject<'_>,
    text: &str,
    paper: Option<Paper>,
    limits: Option<Limits>,
) -> Result<(), Failure> {
    let settings = options.knobs.settings()?;
    let listener = listen(options)?;
    let address = listener.local_addr().map_err(|error| cannot_listen(&error.to_string()))?;
    let token = guard::token()
        .ok_or_else(|| Failure::machine("the system gives no random numbers for a token", "try again"))?;
    let guard = Guard::new(token.clone(), address.port(), options.host);
    let (jobs, taken) = mpsc::channel();
    let flags = Flags::default();
    let hello = Told::Hello {
        name: Path::new(subject.name())
            .file_name()
            .map_or_else(|| subject.name().to_owned(), |name| name.to_string_lossy().into_owned()),
        kind: subject.kind(),
        bones: BoneLayer::NAMES,
    };
    let save = save::saver(&subject, &options.knobs, limits);
    let watched = paper.as_ref().map(|paper| outside::watch(paper.file(), jobs.clone()));
    if let Some(Err(why)) = &watched {
        say(&format!("note: the file is not watched: {why}"));
    }
    let (session, shown) = Session::new(subject, text, paper, settings, (flags.clone(), taken));
    let (slow, slowness) = watch::channel(None);
    let served = Served::new(guard, (flags.clone(), jobs), (shown, slowness), (hello, words_json()), save);
    say(&printed(address, options, &token));
    let runtime = tokio::runtime::Builder::new_current_thread()
        .enable_io()
        .enable_time()
        .max_blocking_threads(2)
        .build()
        .map_err(|error| Failure::machine(format!("the server cannot be started: {error}"), "try again"))?;
    std::thread::scope(|scope| {
        scope.spawn(|| session.work());
        runtime.block_on(async {
            tokio::spawn(serve::watch_runs(flags, slow));
            let listener = TcpListener::from_std(listener)?;
            axum::serve(listener, served.router()).await
        })
    })
    .map_err(|error| Failure::machine(format!("the server ended: {error}"), "start it again"))
}

/// Where the page is found, as it is printed.
fn printed(address: SocketAddr, options: &LiveOptions, token: &str) -> String {
    let name = options.host.filter(|host| !host.is_unspecified()).unwrap_or(IpAddr::V4(Ipv4Addr::LOCALHOST));
    let address = SocketAddr::new(name, address.port());
    let page = format!("open http://{address}/#{token}");
    match options.host {
        Some(host) if !host.is_loopback() => format!(
            "warning: others on the network can reach this page, and whoever has its address can change the score\n{page}"
        ),
        _ => page,
    }
}

fn cannot_listen(why: &str) -> Failure {
    Failure::machine(
        format!("no port can be opened: {why}"),
        "name another with --port, or 0 for any that is free",
    )
}

/// The port that was asked for, or the first that is free.
fn listen(options: &LiveOptions) -> Result<std::net::TcpListener, Failure> {
    let host = options.host.unwrap_or(IpAddr::V4(Ipv4Addr::LOCALHOST));
    let open = |port: u16| std::net::TcpListener::bind((host, port));
    let listener = match options.port {
        Some(port) => open(port).map_err(|error| match error.kind() {
            std::io::ErrorKind::AddrInUse => Failure::machine(
                format!("port {port} is taken by another program"),
                "name another with --port, or 0 for any that is free",
            ),
            _ => cannot_listen(&error.to_string()),
        })?,
        None => {
            let first = (PORT..PORT + PORTS).find_map(|port| open(port).ok());
            first.map_or_else(|| open(0), Ok).map_err(|error| cannot_listen(&error.to_string()))?
        }
    };
    listener.set_nonblocking(true).map_err(|error| cannot_listen(&error.to_string()))?;
    Ok(listener)
}

/// What the page knows of the words of scores.
fn words_json() -> String {
    let one = |word: &words::Word| json!({"name": word.name, "form": word.form(), "about": word.about, "example": word.example, "method": !word.on.is_empty()});
    serde_json::Value::Array(words::all().map(one).collect()).to_string()
}

/// Something that happened outside of the pages.
fn told_outside(jobs: &Sender<Job>, what: session::What) -> bool {
    let (answer, _) = tokio::sync::mpsc::unbounded_channel();
    jobs.send(Job { page: 0, what, answer }).is_ok()
}
