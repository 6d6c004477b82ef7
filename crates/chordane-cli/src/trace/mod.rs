//! `chordane trace`: outlines drawn over a picture, vertex by vertex, in a page on this machine.

mod files;
mod host;
mod journal;
mod message;
pub(crate) mod replay;

use std::collections::BTreeMap;
use std::path::Path;

use chordane::draft::{Draft, PictureEdges};
use chordane::sheet::Picture;

use crate::failure::Failure;
use crate::input::read_file;
use crate::options::TraceOptions;
use crate::output::{Target, each_once, say};
use crate::record::digest;
use crate::web::Place;
use host::{Board, Output, Photo, Question};
use journal::{Entry, Journal, Opened};

/// Traces a picture.
pub(crate) fn picture(options: &TraceOptions) -> Result<(), Failure> {
    each_once(&options.out)?;
    for out in &options.out {
        files::is_known(out)?;
        Target::is_place(out)?;
    }
    let Some(first) = options.out.first() else {
        return Err(Failure::call("it is not said where the outlines go", "name a file with -o"));
    };
    let name = options.image.display().to_string();
    let bytes = read_file(&options.image)?;
    let picture = Picture::read(&bytes)
        .map_err(|error| Failure::input(format!("{name}: {error}"), "name a picture, a .png or .jpg file"))?;
    let place = Journal::place(first);
    // What stands there and was not traced is somebody's work.
    if !place.exists()
        && let Some(out) = options.out.iter().find(|out| out.exists())
    {
        return Err(Failure::call(
            format!("{} already exists, and was not made by chordane trace", out.display()),
            "name another file with -o, or move that one away",
        ));
    }
    let picture_digest = digest(&bytes);
    let (mut journal, opened) =
        Journal::open(&place, &picture_digest).map_err(|error| match error.kind() {
            std::io::ErrorKind::InvalidData => Failure::call(
                format!("{} stands where the steps would be kept: {error}", place.display()),
                "name another file with -o, or move that one away",
            ),
            _ => Failure::writing(&place, &error),
        })?;
    let Opened { mut draft, done, lost, picture: drawn_over, wrote } = opened;
    if done + lost > 0 {
        let steps = |count: usize| if count == 1 { "1 step".to_owned() } else { format!("{count} steps") };
        let lost = match lost {
            0 => String::new(),
            lost => format!(", and {} that could not be read", steps(lost)),
        };
        say(&format!(
            "note: continuing an earlier tracing: {} in {}{lost}\n  help: to start over, remove that file and {}",
            steps(done),
            place.display(),
            first.display()
        ));
    }
    let out: Vec<Output> = options
        .out
        .iter()
        .map(|file| {
            let name = name_beside(file, first);
            let wrote = wrote.get(&name).cloned().unwrap_or_default();
            Output::new(file.clone(), name, wrote)
        })
        .collect();
    let foreign: Vec<String> = out.iter().filter(|out| !out.is_own()).map(|out| out.name.clone()).collect();
    let question = if drawn_over != picture_digest {
        Some(Question::Picture)
    } else if foreign.is_empty() {
        None
    } else {
        Some(Question::Outputs(foreign.clone()))
    };
    if options.no_page && question.is_some() {
        let told = match foreign.first() {
            Some(file) if question != Some(Question::Picture) => {
                format!("{file} holds what chordane trace did not write")
            }
            _ => format!("the steps in {} were drawn over another picture", place.display()),
        };
        return Err(Failure::call(
            told,
            "name another file with -o, or trace it in the page, which asks what to do",
        ));
    }
    if options.auto && draft.steps().len() == 0 && question.is_none() {
        let proposed = Draft::of_picture(&picture, options.within)
            .map_err(|fault| Failure::of_fault(&fault, "give a smaller picture"))?;
        for step in proposed.steps() {
            let entry = Entry::Step(*step);
            journal.add(&entry, &BTreeMap::new()).map_err(|error| Failure::writing(&place, &error))?;
            let _ = entry.apply(&mut draft);
        }
        let count = draft.shapes().len();
        say(&format!("{count} {} found", if count == 1 { "shape was" } else { "shapes were" }));
    }
    let kind = if bytes.starts_with(b"\x89PNG") { "image/png" } else { "image/jpeg" };
    let size = [picture.width(), picture.height()];
    let photo = Photo { name, kind, bytes, size, edges: PictureEdges::of(&picture) };
    let board = Board::new(photo, out, journal, draft, question);
    if done > 0 || options.auto {
        board.write_all()?;
    }
    if options.no_page {
        return Ok(());
    }
    Place::open(&options.page)?.serve(board.into(), || ())
}

/// An output's name in the journal: without the folder where it stands beside the journal, so that all of them can be moved together.
fn name_beside(file: &Path, first: &Path) -> String {
    let name = if file.parent() == first.parent() {
        file.file_name().map(Path::new).unwrap_or(file).to_owned()
    } else {
        std::path::absolute(file).unwrap_or_else(|_| file.to_owned())
    };
    name.display().to_string()
}
