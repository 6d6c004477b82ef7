//! Motion: kites that ride round a reel while it turns, with keys and a timeline, as a picture of one moment and as a clip.
//!
//!     cargo run --example round_the_reel [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::prelude::*;
use chordane::write::{Clip, ClipOptions, Format, WholeFile};

/// The whole drawing, as a function of the phase: any moment can be drawn alone.
fn page(phase: f64) -> Sheet {
    let rail = ellipse((0.0, 0.0), 210.0, 130.0);
    let sail = Path::closed([(0.0, -34.0), (24.0, -6.0), (0.0, 34.0), (-24.0, -6.0)]);
    let dip = keys([(0.0, deg(-20.0)), (0.4, deg(35.0)), (1.0, deg(-20.0))]).eased("ease-in-out");
    let cloth = keys([(0.0, rgb(200.0, 85.0, 61.0)), (0.5, rgb(233.0, 196.0, 106.0))]).looped();
    let shine = timeline().then("wait", 1.0).staggered("flash", 5, 2.0, 0.6).then("rest", 1.0);
    let kite = |i: u32| {
        let own = rounds(phase, 1.0, f64::from(i) / 5.0);
        let flash = pulse(shine.share_of("flash", i as usize, phase), 1.0, 1.5);
        let turn = dip.at(rounds(own, 2.0, 0.0)).unwrap_or_default();
        let colour = cloth.at(own).unwrap_or(rgb(200.0, 85.0, 61.0));
        group()
            .add(sail.clone().fill(colour).stroke("#20303c", 3.0).join("round"))
            .add(Path::open([(0.0, -34.0), (0.0, 34.0)]).stroke("#20303c", 1.5))
            .posed(pose((0.0, 0.0), turn, flash))
            .riding_upright(&rail, own)
    };
    let reel = gear((0.0, 0.0), 18, 46.0, 36.0).with_hole(circle((0.0, 0.0), 12.0));
    sheet(640.0, 480.0)
        .centred()
        .ground("#eadfc6")
        .add(rail.clone().stroke("#2f6f73", 2.0).dash([12.0, 8.0]).marching(rounds(phase, 4.0, 0.0)))
        .add(reel.rotated(saw(phase, turns(0.0), turns(1.0))).fill("#2f6f73"))
        .add_all((0..5).map(kite))
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    page(0.2).save(format!("{folder}/round-the-reel.svg"))?;
    page(0.2).save(format!("{folder}/round-the-reel.png"))?;

    let (frames, seconds) = (48, 3.0);
    let mut file = WholeFile::create(format!("{folder}/round-the-reel.apng").as_ref())?;
    let mut clip = Clip::begin(&mut file, Format::Apng, (640, 480), ClipOptions::new(frames, seconds))?;
    for frame in 0..frames {
        clip.push(&page(frame as f64 / frames as f64).pixels()?)?;
    }
    clip.end()?;
    file.finish()?;
    println!("round-the-reel.svg, .png and .apng are in {folder}");
    Ok(())
}
