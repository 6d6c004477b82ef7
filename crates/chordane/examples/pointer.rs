//! Shapes as buttons, without a window: a recorded pointer comes, presses, slips off and lets go. What lies under it says what happens.
//!
//!     cargo run --example pointer [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says what happened")]

use chordane::prelude::*;

/// The sails of a panel, of which only the cloth answers: not the box around it, and not its vent.
const SAILS: [(&str, f64); 3] = [("line", 110.0), ("tail", 240.0), ("lamp", 370.0)];

fn panel(on: [bool; 3], over: Option<usize>) -> Sheet {
    let sail = Path::closed([(0.0, -70.0), (52.0, -10.0), (0.0, 74.0), (-52.0, -10.0)]);
    let sail = sail.with_hole(circle((0.0, -12.0), 15.0));
    let items = SAILS.iter().enumerate().map(|(i, (name, x))| {
        let (cloth, width) =
            (if on[i] { "#c8553d" } else { "#9fb3b0" }, if over == Some(i) { 5.0 } else { 2.0 });
        sail.clone().fill(cloth).stroke("#20303c", width).join("round").named(*name).moved((*x, 116.0))
    });
    sheet(480.0, 240.0).ground("#eadfc6").add_all(items)
}

/// The sail under a spot.
fn under(page: &Sheet, spot: Point) -> Option<usize> {
    let name = page.item_at(spot)?.placed.item.name();
    SAILS.iter().position(|(own, _)| Some(*own) == name)
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    // The recording: a way, and the moments at which the button goes down and up, as a window would hand them on.
    let way = through([(20.0, 60.0), (110.0, 140.0), (245.0, 150.0), (300.0, 90.0), (375.0, 130.0)])
        .open()
        .survey()?;
    let (mut on, mut over, mut pressed) = ([false; 3], None, None);
    for (moment, station) in way.split(60, false).enumerate() {
        let pointer = station.point();
        over = under(&panel(on, over), pointer);
        match moment {
            14 | 30 | 56 => pressed = over,
            18 | 44 | 59 => {
                // It counts where it went down and up on the same sail.
                if let Some(i) = pressed.take().filter(|i| over == Some(*i)) {
                    on[i] = !on[i];
                    println!("{} is {} at {pointer:.0}", SAILS[i].0, if on[i] { "on" } else { "off" });
                } else {
                    println!("let go beside what was pressed, at {pointer:.0}");
                }
            }
            _ => {}
        }
    }
    let page = panel(on, over);
    page.save(format!("{folder}/pointer.svg"))?;
    page.save(format!("{folder}/pointer.png"))?;
    println!("pointer.svg and .png are in {folder}");
    Ok(())
}
