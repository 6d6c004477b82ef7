//! Wheels: lace from turning radii, and rolling circles that close by themselves.
//!
//!     cargo run --example wheels [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::prelude::*;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let mut sheet = sheet(660.0, 480.0).ground("#20303c");
    // A ring of 60 and rollers of other sizes: the ratio in lowest terms says after how many laps it closes.
    for (i, roller) in [15.0, 18.0, 22.5, 25.0, 35.0, 37.5].into_iter().enumerate() {
        let wheels = wheels_inside((0.0, 0.0), 60.0, roller, 0.8 * roller);
        let at = pt(90.0 + 120.0 * (i % 3) as f64, 90.0 + 150.0 * (i / 3) as f64);
        let text = match wheels.closing().laps {
            1 => "1 lap".to_owned(),
            laps => format!("{laps} laps"),
        };
        let name = lettering(&text, at + pt(-0.5 * lettering_width(&text, 9.0), 82.0), 9.0);
        sheet = sheet.add(wheels.path().moved(at).stroke("#d9a441", 1.5));
        sheet = sheet.add(name.stroke("#f4efe6", 1.2).cap(Cap::Round));
    }
    // Three wheels, forward, backward and forward: as many points as wanted, at even steps of time.
    let lace = wheel(62.0, 1.0, deg(0.0)).wheel(26.0, -8.0, deg(0.0)).wheel(8.0, 19.0, deg(90.0));
    let centre = pt(530.0, 240.0);
    sheet = sheet.add(lace.clone().centre(centre).path().stroke("#f4efe6", 1.5));
    let knots = lace.centre(centre).points(54);
    sheet = sheet.add(copies_at(circle((0.0, 0.0), 2.2).fill("#c8553d"), knots));
    for (pinch, y) in [(0.3, 90.0), (1.0, 400.0)] {
        let turned = wheel_polygon((530.0, y), 5, 44.0, pinch);
        sheet = sheet.add(turned.stroke("#6fb3a8", 2.0).join(Join::Round));
    }
    // This one never closes; what comes nearest is known.
    let closing = wheels_inside((0.0, 0.0), 60.0, 60.0 / std::f64::consts::PI, 9.0).closing();
    let text = format!("a roller of 60 / pi nearly closes after {} laps", closing.laps);
    let name = lettering(&text, (30.0, 400.0), 9.0);
    let sheet = sheet.add(name.stroke("#f4efe6", 1.2).cap(Cap::Round));

    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    sheet.save(format!("{folder}/wheels.svg"))?;
    sheet.save(format!("{folder}/wheels.png"))?;
    println!("wheels.svg and wheels.png are in {folder}");
    Ok(())
}
