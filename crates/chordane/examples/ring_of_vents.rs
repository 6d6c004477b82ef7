//! A ring of vents: an angle that steps evenly round a full turn places each one.
//!
//!     cargo run --example ring_of_vents [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use std::path::PathBuf;

use chordane::prelude::*;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let centre = pt(320.0, 240.0);
    let mut sail = polygon(centre, 12, 200.0);
    for angle in around(12) {
        // The same as `centre + polar(angle, 140.0)`, spelled out.
        let at = (centre.x + angle.cos() * 140.0, centre.y + angle.sin() * 140.0);
        sail = sail.with_hole(circle(at, 20.0));
    }
    sail = sail.with_hole(star(centre, 6, 90.0, 48.0));

    let rays = between(deg(-60.0), deg(60.0), 9).map(|angle| {
        let (from, to) = (centre + polar(angle, 214.0), centre + polar(angle, 250.0));
        Path::open([from, to]).stroke("#8a3524", 4.0).cap(Cap::Round)
    });

    let sheet =
        sheet(640.0, 480.0).ground("#f4efe6").add(sail.fill("#2f6f73").stroke("#173d40", 3.0)).add_all(rays);

    let folder = PathBuf::from(std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned()));
    std::fs::create_dir_all(&folder)?;
    sheet.save(folder.join("ring-of-vents.svg"))?;
    sheet.save(folder.join("ring-of-vents.png"))?;
    println!("ring-of-vents.svg and ring-of-vents.png are in {}", folder.display());
    Ok(())
}
