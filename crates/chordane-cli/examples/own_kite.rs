//! A score in Rust with the command's options: `own_kite -o kite.svg -o kite.png --size 1280x960`.

use std::process::ExitCode;

use chordane::prelude::*;
use chordane_score::Stage;

fn main() -> ExitCode {
    chordane_cli::run("own_kite", |stage: &mut Stage| {
        let width = stage.knob("width", 0.7, 0.2, 1.0);
        let sail =
            polygon((0.0, 0.0), 4, 150.0).scaled_by((width, 1.0)).with_hole(circle((0.0, -20.0), 20.0));
        sheet(640.0, 480.0).centred().ground("#f4efe6").add(sail.fill("#2f6f73").stroke("#173d40", 4.0))
    })
}
