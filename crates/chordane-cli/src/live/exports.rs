//! The exports that pages request, and their progress.

use std::collections::{BTreeMap, HashMap};
use std::io::Write;
use std::sync::mpsc::Sender;
use std::sync::{Arc, Mutex, PoisonError};

use chordane_score::{Limits, Runner, Settings};
use indicatif::ProgressBar;
use tokio::sync::Notify;

use super::export::{Export, Kept};
use super::outside::told_outside;
use super::session::{Job, What};
use crate::failure::Failure;
use crate::input::Input;
use crate::web::Outlet;

/// The running exports, by the ids that pages gave them.
#[derive(Clone, Debug, Default)]
pub(crate) struct Exports {
    all: Arc<Mutex<BTreeMap<String, ProgressBar>>>,
    begun: Arc<Notify>,
}

impl Exports {
    fn begin(&self, name: &str) -> ProgressBar {
        let bar = ProgressBar::hidden();
        bar.set_length(1);
        self.all.lock().unwrap_or_else(PoisonError::into_inner).insert(name.to_owned(), bar.clone());
        self.begun.notify_one();
        bar
    }

    /// Waits until one begins.
    pub(crate) async fn begun(&self) {
        self.begun.notified().await;
    }

    fn end(&self, name: &str) {
        self.all.lock().unwrap_or_else(PoisonError::into_inner).remove(name);
    }

    /// The progress of each: its id, the frames drawn, and the frames in all.
    pub(crate) fn told(&self) -> Vec<(String, u64, u64)> {
        let all = self.all.lock().unwrap_or_else(PoisonError::into_inner);
        all.iter().map(|(name, bar)| (name.clone(), bar.position(), bar.length().unwrap_or(1))).collect()
    }
}

/// Makes a file of what is shown, and sends it while it is made.
pub(crate) fn export(
    file: &str,
    query: &HashMap<String, String>,
    (jobs, exports): (&Sender<Job>, &Exports),
    input_of: impl FnOnce(&str) -> Option<Input>,
    limits: Option<Limits>,
    out: Outlet,
) -> Result<(), String> {
    let asked = Export::asked(file, query)?;
    let (to, from) = std::sync::mpsc::channel();
    told_outside(jobs, What::Save(to));
    let (text, settings): (Arc<str>, Settings) = from.recv().map_err(|_| ENDS.to_owned())?;
    let mut out = out;
    if asked.kept == Kept::Track {
        return out.write_all(&track(&settings)).map_err(|error| error.to_string());
    }
    let own = query.get("id").map_or(file, String::as_str);
    let bar = exports.begin(own);
    let made = match input_of(&text) {
        Some(input) => {
            let origin = input.origin();
            let open = || Ok::<Runner<'_>, Failure>(input.open(limits.unwrap_or_default())?.runner);
            let made = asked.draw(&settings, origin.as_ref(), limits, open, (&mut out, &bar));
            made.map_err(|failure| failure.to_string())
        }
        None => {
            let (to, from) = std::sync::mpsc::channel();
            told_outside(jobs, What::Export(asked, out, bar, to));
            match from.recv() {
                Ok(None) => Ok(()),
                Ok(Some(why)) => Err(why),
                Err(_) => Err(ENDS.to_owned()),
            }
        }
    };
    exports.end(own);
    made
}

const ENDS: &str = "the program ends";

/// A recorded track of the pointer, as `draw --track` reads it.
fn track(settings: &Settings) -> Vec<u8> {
    let samples = settings.track.as_ref().map(|track| track.samples().to_vec()).unwrap_or_default();
    let line = |(seconds, pointer): &(f64, chordane_score::Pointer)| {
        let moment =
            serde_json::json!({"seconds": seconds, "at": pointer.at.to_array(), "down": pointer.down});
        format!("{moment}\n")
    };
    samples.iter().map(line).collect::<String>().into_bytes()
}
