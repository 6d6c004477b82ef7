//! `chordane trace`: outlines drawn over a picture, vertex by vertex, in a page on this machine.

mod files;
mod host;
mod journal;
mod message;

use chordane::draft::{Draft, PictureEdges};
use chordane::sheet::Picture;

use crate::failure::Failure;
use crate::input::read_file;
use crate::options::TraceOptions;
use crate::output::{Target, each_once, say};
use crate::web::Place;
use host::{Board, Photo};
use journal::{Entry, Journal};

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
    let (mut journal, mut draft, recovered) =
        Journal::open(&place).map_err(|error| Failure::writing(&place, &error))?;
    if recovered.done + recovered.lost > 0 {
        let steps = |count: usize| if count == 1 { "1 step".to_owned() } else { format!("{count} steps") };
        let lost = match recovered.lost {
            0 => String::new(),
            lost => format!(", and {} that could not be read", steps(lost)),
        };
        say(&format!(
            "note: continuing an earlier tracing: {} in {}{lost}\n  help: to start over, remove that file and {}",
            steps(recovered.done),
            place.display(),
            first.display()
        ));
    }
    if options.auto && draft.steps().len() == 0 {
        for step in Draft::of_picture(&picture, options.within).steps() {
            let entry = Entry::Step(*step);
            journal.add(&entry).map_err(|error| Failure::writing(&place, &error))?;
            let _ = entry.apply(&mut draft);
        }
        let count = draft.shapes().len();
        say(&format!("{count} {} found", if count == 1 { "shape was" } else { "shapes were" }));
    }
    let kind = if bytes.starts_with(b"\x89PNG") { "image/png" } else { "image/jpeg" };
    let size = [picture.width(), picture.height()];
    let photo = Photo { name, kind, bytes, size, edges: PictureEdges::of(&picture) };
    let board = Board::new(photo, options.out.clone(), journal, draft);
    if recovered.done > 0 || options.auto {
        board.write_all()?;
    }
    if options.no_page {
        return Ok(());
    }
    Place::open(&options.page)?.serve(board.into(), || ())
}
