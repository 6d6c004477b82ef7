//! A flight: one kite is drawn once, then moved, turned and scaled.
//!
//!     cargo run --example flight [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use std::path::PathBuf;

use chordane::prelude::*;

fn kite(cloth: &str, trim: &str) -> Group {
    let sail = Path::closed([(0.0, -90.0), (62.0, -20.0), (0.0, 100.0), (-62.0, -20.0)]);
    let vent = circle((0.0, -20.0), 13.0);
    let tail = start((0.0, 100.0))
        .cubic((30.0, 140.0), (-40.0, 170.0), (-5.0, 215.0))
        .cubic((25.0, 255.0), (-35.0, 275.0), (-10.0, 320.0))
        .open();
    let bow = Path::closed([(0.0, 0.0), (-17.0, -9.0), (-17.0, 9.0)]).and(&Path::closed([
        (0.0, 0.0),
        (17.0, -9.0),
        (17.0, 9.0),
    ]));
    let ink = style().stroke("#20303c", 2.0).cap("round").join("round");
    let bows = [(-8.0, 165.0, 20.0), (2.0, 232.0, -15.0), (-14.0, 290.0, 25.0)];
    group()
        .add(tail.styled(&ink))
        .add(sail.with_hole(vent).styled(&ink.clone().fill(cloth)))
        .add(Path::open([(0.0, -90.0), (0.0, 100.0)]).styled(&ink.clone().dash([5.0, 6.0])))
        .add_all(
            bows.map(|(x, y, lean)| bow.rotated(deg(lean)).moved((x, y)).styled(&ink.clone().fill(trim))),
        )
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let swells = (0..4).map(|i| {
        let y = 330.0 + f64::from(i) * 44.0;
        start((-20.0, y))
            .cubic((180.0, y - 90.0), (330.0, y + 70.0), (660.0, y - 40.0))
            .line((660.0, 500.0))
            .line((-20.0, 500.0))
            .close()
            .fill("rgb(47 111 115 / 14%)")
    });
    let sheet = sheet(640.0, 480.0)
        .ground("#dfe9ee")
        .add_all(swells)
        .add(kite("#c8553d", "#d9a441").rotated(deg(14.0)).scaled(0.8).moved((180.0, 135.0)))
        .add(kite("#d9a441", "#2f6f73").rotated(deg(-10.0)).scaled(0.62).moved((395.0, 110.0)))
        .add(kite("#2f6f73", "#c8553d").rotated(deg(22.0)).scaled(0.48).moved((545.0, 200.0)).opacity(0.8));

    let folder = PathBuf::from(std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned()));
    std::fs::create_dir_all(&folder)?;
    sheet.save(folder.join("flight.svg"))?;
    sheet.save(folder.join("flight.png"))?;
    println!("flight.svg and flight.png are in {}", folder.display());
    Ok(())
}
