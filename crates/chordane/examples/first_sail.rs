//! A first sail: four typed vertices, a round vent, a sheet, and a picture.
//!
//!     cargo run --example first_sail [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use std::path::PathBuf;

use chordane::prelude::*;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sail =
        start(pt(0.0, -170.0)).line(pt(120.0, -40.0)).line(pt(0.0, 170.0)).line(pt(-120.0, -40.0)).close();
    let vent = circle(pt(0.0, -40.0), 26.0);

    let sheet = sheet(640.0, 480.0)
        .centred()
        .ground("#f4efe6")
        .add(sail.with_hole(vent).fill("#c8553d").stroke("#20303c", 4.0).join(Join::Round));

    let folder = PathBuf::from(std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned()));
    std::fs::create_dir_all(&folder)?;
    sheet.save(folder.join("first-sail.svg"))?;
    sheet.save(folder.join("first-sail.png"))?;
    println!("first-sail.svg and first-sail.png are in {}", folder.display());
    Ok(())
}
