//! A format of one's own: the lines of a sheet as the strokes of a pen, in millimetres, for a machine that draws.
//!
//!     cargo run --example pen_strokes [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use std::fmt::Write;
use std::path::PathBuf;

use chordane::prelude::*;
use chordane::raster::DrawError;
use chordane::write::OwnFormat;

static STROKES: OwnFormat = OwnFormat { ending: "strokes", name: "pen strokes", write: strokes };

/// Every line of the sheet as it is seen: where the pen goes down, where it is drawn to, where it goes up.
fn strokes(sheet: &Sheet, options: &WriteOptions) -> Result<Vec<u8>, DrawError> {
    let mut text = String::new();
    for placed in sheet.scene()?.items().iter().filter(|placed| placed.stroke().is_some()) {
        for line in placed.path().flattened(options.tolerance).contours() {
            let mut verb = "down";
            let back = line.is_closed().then(|| line.start());
            for Point { x, y } in line.vertices().chain(back) {
                let _ = writeln!(text, "{verb} {x:.2} {y:.2}");
                verb = "draw";
            }
            text.push_str("up\n");
        }
    }
    Ok(text.into_bytes())
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let vents = (0..5).map(|i| circle((0.0, 0.0), 6.0 + 3.0 * f64::from(i)).stroke("#20303c", 0.4));
    let sail = polygon((0.0, 0.0), 4, 34.0).stroke("#20303c", 0.4);
    let page = sheet(90.0, 90.0).unit("mm").centred().add(sail).add_all(vents);

    let folder = PathBuf::from(std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned()));
    std::fs::create_dir_all(&folder)?;
    let options = WriteOptions { tolerance: 0.02, ..WriteOptions::default() };
    page.save_as(folder.join("pen-strokes.strokes"), Format::Own(&STROKES), &options)?;
    page.save(folder.join("pen-strokes.svg"))?;
    page.save_as(folder.join("pen-strokes.png"), Format::Png, &WriteOptions::sized(640, 640))?;
    println!("pen-strokes.strokes, .svg and .png are in {}", folder.display());
    Ok(())
}
