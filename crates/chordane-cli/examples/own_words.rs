//! The command with two words more, for scores of rigging: `own_words words tassel`, `own_words live mast.chord`.

use std::process::ExitCode;

use chordane_cli::Program;
use chordane_cli::chordane::prelude::*;
use chordane_cli::chordane_score::Words;

fn main() -> ExitCode {
    let words = Words::new()
        .add(
            "tassel(at, threads)",
            "Threads that hang from a point, side by side.",
            r#"tassel(pt(0, 0), 5).stroke("teal", 1)"#,
            |at: Point, threads: usize| {
                let first = at.x - (threads as f64 - 1.0);
                let thread = |i: usize| start(at).line((first + 2.0 * i as f64, at.y + 14.0)).open();
                (0..threads).map(thread).fold(Path::empty(), |all, thread| all.and(&thread))
            },
        )
        .add(
            ".roped(width)",
            "A line as a rope: a dark one, and a light one within it.",
            "start([0, 0]).line([60, 20]).open().roped(4)",
            |path: Path, width: f64| {
                let light = path.clone().stroke("#e8dcc0", width * 0.5).dash([width, width]);
                group().add(path.stroke("#6b4f2a", width)).add(light)
            },
        );
    Program::new("own_words").words(words).main()
}
