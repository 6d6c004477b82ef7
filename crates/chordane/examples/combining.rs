//! Two shapes combined in all ways, many at once, a line cut by an area, and the way from one shape to another.
//!
//!     cargo run --example combining [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::prelude::*;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let mut sheet = sheet(640.0, 480.0).ground("#fbf8f1");
    let (spar, vent) = (rounded_rectangle((-40.0, -34.0), 60.0, 60.0, 10.0), circle((16.0, 12.0), 30.0));
    let ways = [
        ("union", spar.union(&vent)),
        ("intersection", spar.intersection(&vent)),
        ("difference", spar.difference(&vent)),
        ("xor", spar.xor(&vent)),
    ];
    for (i, (name, path)) in ways.into_iter().enumerate() {
        let at = pt(90.0 + 152.0 * i as f64, 80.0);
        let label = lettering(name, at + pt(-0.5 * lettering_width(name, 11.0), 66.0), 11.0);
        sheet = sheet.add(spar.clone().and(&vent).moved(at).stroke("#b9b2a3", 1.0).dash([3.0, 3.0]));
        sheet = sheet.add(path.moved(at).fill("#2f6f73").stroke("#20303c", 2.0));
        sheet = sheet.add(label.stroke("#20303c", 1.2).cap(Cap::Round));
    }

    // A hundred discs in one go, and the stretches of a wave that lie on them.
    let discs = golden_places(100, 8.5).map(|at| circle(at, 8.6));
    let cloth = union_all(discs).moved((150.0, 320.0));
    let thread = Path::open([(30.0, 320.0), (270.0, 320.0)]).waved(50.0, 60.0);
    sheet = sheet.add(cloth.clone().fill("#d9a441"));
    sheet = sheet.add(thread.clip_line(&cloth).stroke("#c8553d", 4.0));
    sheet = sheet.add(thread.clip_line_outside(&cloth).stroke("#b9b2a3", 2.0));

    // A sail turns into a gear with a vent, in five steps.
    let sail = Path::closed([(0.0, -46.0), (40.0, -8.0), (0.0, 46.0), (-40.0, -8.0)]);
    let gear = gear((0.0, 0.0), 8, 44.0, 32.0).with_hole(circle((0.0, 0.0), 14.0));
    let way = sail.morph(&gear);
    for step in 0..=4 {
        let at = pt(350.0 + 60.0 * f64::from(step), 240.0 + 42.0 * f64::from(step));
        sheet = sheet.add(way.at(f64::from(step) / 4.0).scaled(0.8).moved(at).fill("#7d4e7a").opacity(0.85));
    }

    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    sheet.save(format!("{folder}/combining.svg"))?;
    sheet.save(format!("{folder}/combining.png"))?;
    println!("combining.svg and combining.png are in {folder}");
    Ok(())
}
