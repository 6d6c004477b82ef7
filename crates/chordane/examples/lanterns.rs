//! Lanterns at dusk: glow, a mask, a clip, a blend mode, colours by vertex, and hoops that are linked.
//!
//!     cargo run --example lanterns [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::prelude::*;

/// A paper lantern of a size, shining.
fn lantern(size: f64) -> Group {
    let paper = radial_gradient((0.0, 0.0), 9.0).colours(["#fffbe8", "#ffe2a0", "#f0a040"]);
    group()
        .add(ellipse((0.0, 0.0), 7.0, 9.0).fill(paper))
        .glow(5.0, "#ffcf6b")
        .glow(16.0, "rgb(255 170 80 / 80%)")
        .scaled(size)
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sky =
        linear_gradient((0.0, 0.0), (0.0, 360.0)).colours(["#131b33", "#7d4e7a", "#f2b872"]).mixed("oklab");
    let sea = rectangle((0.0, 360.0), 640.0, 120.0);
    let sail = Path::closed([(0.0, -70.0), (48.0, -16.0), (0.0, 70.0), (-48.0, -16.0)]);

    // A sail with a colour for every vertex, in the light of its lantern.
    let kite = group()
        .add(sail.clone().fill(by_vertex(["#f7e2c0", "#d9775f", "#5a2a3c", "#c8553d"])))
        .add(circle((0.0, -16.0), 60.0).fill("#ffd27a").blend("soft-light").clipped(sail.clone()))
        .add(sail.stroke("#20303c", 3.0).join("round"))
        .add(lantern(1.2).moved((0.0, -16.0)).order(1.0));
    let flight = group()
        .add(kite.clone().rotated(deg(12.0)).moved((190.0, 170.0)))
        .add(kite.scaled(0.6).rotated(deg(-14.0)).moved((430.0, 120.0)));

    // The same in the water: upside down, blurred, and the fainter the farther down.
    let fade = linear_gradient((0.0, 360.0), (0.0, 480.0)).colours(["#909090", "black"]);
    let mirrored = group()
        .add(flight.clone().scaled_by((1.0, -0.6)).moved((0.0, 560.0)).blurred(2.5))
        .masked(sea.clone().fill(fade));

    // A chain along the shore.
    let hoop = |i: i32| circle((40.0 + 34.0 * f64::from(i), 452.0), 22.0).stroke("#d9a441", 6.0);
    let sheet = sheet(640.0, 480.0)
        .title("Lanterns at dusk")
        .ground(sky)
        .add(sea.fill("#23304f"))
        .add(mirrored)
        .add(flight)
        .add(linked((0..17).map(hoop)).shadow((2.0, 4.0), 3.0, "rgb(0 0 0 / 50%)"));

    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    sheet.save(format!("{folder}/lanterns.svg"))?;
    sheet.save(format!("{folder}/lanterns.png"))?;
    println!("lanterns.svg and lanterns.png are in {folder}");
    Ok(())
}
