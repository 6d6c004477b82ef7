//! What pages of a score talk to: it hands on what they ask for, and tells them what is news.

use std::collections::HashMap;
use std::path::Path;
use std::sync::Arc;
use std::sync::mpsc::Sender;
use std::time::Duration;

use chordane::ground::Named;
use chordane::picture::BoneLayer;
use chordane_score::words::Word;
use chordane_score::{Limits, Words};
use serde_json::json;
use tokio::sync::watch;

use super::export::ExportFormat;
use super::exports::{Exports, export};
use super::flags::Flags;
use super::message::{Asked, Told};
use super::session::{Job, What};
use super::shown::Shown;
use crate::input::Input;
use crate::web::{Answer, Host, LIVE, Outlet, token};

/// A run that goes on for longer than this is told.
const SLOW_RUN: Duration = Duration::from_millis(400);

/// The time between two progress messages.
const TELL_EXPORTS: Duration = Duration::from_millis(150);

/// What pages of a score talk to.
pub(crate) struct Desktop {
    name: String,
    kind: &'static str,
    limits: Option<Limits>,
    words: Words,
    /// Another one for each program that is started.
    run: String,
    flags: Flags,
    jobs: Sender<Job>,
    shown: watch::Receiver<Shown>,
    show: watch::Sender<Shown>,
    exports: Exports,
}

impl Desktop {
    pub(crate) fn new(
        (name, kind, limits, words): (String, &'static str, Option<Limits>, Words),
        (flags, jobs): (Flags, Sender<Job>),
        (shown, show): (watch::Receiver<Shown>, watch::Sender<Shown>),
    ) -> Self {
        let run = token().unwrap_or_default();
        Self { name, kind, limits, words, run, flags, jobs, shown, show, exports: Exports::default() }
    }
}

impl Host for Desktop {
    type Shown = Shown;

    fn page(&self) -> &'static str {
        LIVE
    }

    fn hello(&self) -> String {
        let name = Path::new(&self.name).file_name();
        let name = name.map_or_else(|| self.name.clone(), |name| name.to_string_lossy().into_owned());
        let file = std::fs::canonicalize(&self.name).ok();
        let path = file.map_or_else(|| self.name.clone(), |file| file.display().to_string());
        let (run, bones, formats) = (self.run.clone(), BoneLayer::NAMES, ExportFormat::all());
        Told::Hello { name, path, run, kind: self.kind, bones, formats }.json()
    }

    fn shown(&self) -> watch::Receiver<Shown> {
        self.shown.clone()
    }

    fn news(&self, now: &Shown, before: Option<&Shown>) -> Vec<String> {
        now.news(before).iter().map(Told::json).collect()
    }

    fn asked(&self, page: u64, text: &str, answer: &Answer) -> Result<(), String> {
        let asked: Asked = serde_json::from_str(text).map_err(|error| error.to_string())?;
        match asked {
            Asked::Stop => self.flags.stop(),
            Asked::Edit { .. } | Asked::Undo | Asked::Redo => self.flags.supersede(),
            _ => {}
        }
        if !matches!(asked, Asked::Hover { .. } | Asked::Pointer { .. }) {
            self.flags.hurry();
        }
        let job = Job { page, what: What::Asked(asked), answer: answer.clone() };
        self.jobs.send(job).map_err(|_| "the program ends".to_owned())
    }

    fn left(&self, page: u64) {
        let (answer, _) = tokio::sync::mpsc::unbounded_channel();
        let _ = self.jobs.send(Job { page, what: What::Left, answer });
    }

    fn save(&self, name: &str, query: &HashMap<String, String>, out: Outlet) -> Result<(), String> {
        export(name, query, (&self.jobs, &self.exports), self.input_of(), self.limits, out)
    }

    fn file(&self, name: &str) -> Option<(&'static str, Vec<u8>)> {
        (name == "words.json").then(|| ("application/json", words_json(&self.words).into_bytes()))
    }

    /// Says how long a run goes on while one is slow, and how far exports are. Nothing is done where there is none.
    async fn beside(self: Arc<Self>) {
        tokio::spawn(Arc::clone(&self).tell_exports());
        loop {
            self.flags.begun().await;
            let mut wait = SLOW_RUN;
            loop {
                tokio::time::sleep(wait).await;
                match self.flags.lasts() {
                    Some(lasts) if lasts >= SLOW_RUN => {
                        let seconds = (lasts.as_secs_f64() * 10.0).floor() / 10.0;
                        self.show.send_modify(|shown| shown.slow = seconds);
                        wait = Duration::from_secs(1);
                    }
                    _ => break,
                }
            }
            self.show.send_if_modified(|shown| std::mem::take(&mut shown.slow) > 0.0);
        }
    }
}

impl Desktop {
    /// Returns a function that makes an input of a text; `None` for a compiled score.
    fn input_of(&self) -> impl FnOnce(&str) -> Option<Input> {
        |text| match self.kind {
            "score" => Some(Input::Score(self.name.clone(), text.to_owned(), self.words.clone())),
            "document" => Some(Input::Svg(self.name.clone(), text.as_bytes().to_vec())),
            _ => None,
        }
    }

    async fn tell_exports(self: Arc<Self>) {
        loop {
            self.exports.begun().await;
            let mut last = false;
            while !last {
                tokio::time::sleep(TELL_EXPORTS).await;
                let told = self.exports.told();
                last = told.is_empty();
                self.show.send_if_modified(|shown| {
                    let news = shown.exports != told;
                    shown.exports = told;
                    news
                });
            }
        }
    }
}

/// What the page knows of the words of scores.
fn words_json(words: &Words) -> String {
    let one = |word: &Word| {
        let is_method = !word.on.is_empty();
        json!({"name": word.name, "form": word.form(), "about": word.about, "example": word.example, "method": is_method})
    };
    serde_json::Value::Array(words.all().map(one).collect()).to_string()
}
