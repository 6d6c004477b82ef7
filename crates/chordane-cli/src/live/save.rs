//! Files made of what is shown, as `draw` makes them.

use std::collections::HashMap;
use std::sync::Arc;
use std::sync::mpsc::Sender;

use chordane_score::{Limits, Runner, Settings};
use clap::Parser;

use super::outside::told_outside;
use super::session::{Job, What};
use crate::draw;
use crate::input::Input;
use crate::options::OneScore;
use crate::web::Saved;

/// Endings that can be asked for.
const ENDINGS: &[&str] = &["svg", "png", "apng", "gif", "y4m", "jsonl"];

/// A file of what is shown, by its name and what is asked of it.
pub(crate) fn saved(
    file: &str,
    query: &HashMap<String, String>,
    jobs: &Sender<Job>,
    (kind, name): (&str, &str),
    limits: Option<Limits>,
) -> Saved {
    let ending = file.rsplit_once('.').map_or("", |(_, ending)| ending);
    if !ENDINGS.contains(&ending) {
        return Err(format!("{file} can be saved as {}", ENDINGS.join(", ")));
    }
    let (to, from) = std::sync::mpsc::channel();
    told_outside(jobs, What::Save(to));
    let (text, settings): (Arc<str>, Settings) = from.recv().map_err(|_| ENDS.to_owned())?;
    if ending == "jsonl" {
        return Ok(track(&settings));
    }
    let folder = tempfile::tempdir().map_err(|error| error.to_string())?;
    let out = folder.path().join(format!("saved.{ending}"));
    let mut call = vec!["chordane".to_owned(), "-o".to_owned(), out.display().to_string()];
    for option in ["frames", "size"] {
        if let Some(value) = query.get(option).filter(|value| !value.is_empty()) {
            call.extend([format!("--{option}"), value.clone()]);
        }
    }
    let options = OneScore::try_parse_from(call).map_err(|error| error.to_string())?.draw;
    let input = match kind {
        "score" => Input::Score(name.to_owned(), text.to_string()),
        "document" => Input::Svg(name.to_owned(), text.as_bytes().to_vec()),
        _ => {
            let (to, from) = std::sync::mpsc::channel();
            told_outside(jobs, What::Draw(options.into(), to));
            return match from.recv().map_err(|_| ENDS.to_owned())? {
                Some(why) => Err(why),
                None => std::fs::read(&out).map_err(|error| error.to_string()),
            };
        }
    };
    let origin = input.origin();
    let open = || Ok::<Runner<'_>, crate::failure::Failure>(input.open(limits.unwrap_or_default())?.runner);
    draw::score(&options, settings, origin, limits, open).map_err(|failure| failure.to_string())?;
    std::fs::read(&out).map_err(|error| error.to_string())
}

const ENDS: &str = "the program ends";

/// A recorded track of the pointer, as `draw --track` reads it.
fn track(settings: &Settings) -> Vec<u8> {
    let samples = settings.get_track().map(|track| track.samples().to_vec()).unwrap_or_default();
    let line = |(seconds, pointer): &(f64, chordane_score::Pointer)| {
        let moment =
            serde_json::json!({"seconds": seconds, "at": pointer.at.to_array(), "down": pointer.down});
        format!("{moment}\n")
    };
    samples.iter().map(line).collect::<String>().into_bytes()
}
