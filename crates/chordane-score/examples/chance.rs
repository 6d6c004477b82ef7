//! Chance: patches that keep a condition, even dots without a pattern, and gusts that come round.
//!
//!     cargo run -p chordane-score --example chance [FOLDER] [SEED]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::chance::Dice;
use chordane::prelude::*;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let mut arguments = std::env::args().skip(1);
    let folder = arguments.next().unwrap_or_else(|| "chordane-examples".to_owned());
    let seed: u64 = arguments.next().map_or(Ok(7), |text| text.parse())?;
    let mut sheet = sheet(640.0, 440.0).ground("#f4efe6");

    // Drawn again until it does not cross itself and its corners keep apart.
    let mut dice = Dice::new(seed, "patch");
    for cell in cell((20.0, 20.0), 600.0, 190.0).grid(4, 1) {
        let patch = dice.keep_if(
            500,
            |dice| {
                let corner = |_| cell.at(dice.between(0.05, 0.95), dice.between(0.05, 0.95));
                Path::closed([0; 6].map(corner))
            },
            |patch| {
                patch.crosses_itself() == Ok(false) && patch.vertex_gap().is_ok_and(|gap| gap > Some(30.0))
            },
        )?;
        let cloth = *dice.pick(&["#c8553d", "#2f6f73", "#7d4e7a"]).unwrap_or(&"#20303c");
        sheet = sheet.add(patch.fill(cloth));
    }
    // Dots for themselves crowd; dots that keep a distance do not.
    let (crowd, apart) = (circle((130.0, 320.0), 95.0), circle((510.0, 320.0), 95.0));
    let mut dots = Dice::new(seed, "dots");
    let dot = circle((0.0, 0.0), 2.4).fill("#20303c");
    let even = dots.scatter_apart(&apart, 13.0)?;
    sheet = sheet.add(copies_at(dot.clone(), dots.scatter(&crowd, even.len())?)).add(copies_at(dot, even));
    // A rim that gusts move smoothly, all the way round.
    let gust = Dice::new(seed, "gust");
    let rim = trail(240, |share| polar(turns(share), 70.0 + 22.0 * gust.wander_loop(share, 9.0)));
    let sheet = sheet.add(rim.moved((320.0, 320.0)).fill("#d9a441"));

    std::fs::create_dir_all(&folder)?;
    sheet.save(format!("{folder}/chance.svg"))?;
    sheet.save(format!("{folder}/chance.png"))?;
    println!("chance.svg and chance.png are in {folder}");
    Ok(())
}
