//! Which arc: every way to make one, side by side. Green is what it is given, red what comes of it.
//!
//!     cargo run --example which_arc [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::path::Arc;
use chordane::prelude::*;

/// A cell of the sheet: an arc, the points that it was given, joined in order, and its label.
fn cell(place: usize, label: &str, arc: Path, given: &[Point]) -> Group {
    let dots = given.iter().map(|p| circle(*p, 3.0).fill("#2f6f73"));
    let name = lettering(label, (80.0 - lettering_width(label, 8.0) / 2.0, 104.0), 8.0);
    group()
        .add(rounded_rectangle((4.0, 0.0), 152.0, 110.0, 6.0).stroke("#d8cfbd", 1.0))
        .add(Path::open(given.iter().copied()).stroke("#2f6f73", 1.0))
        .add(arc.stroke("#c8553d", 3.0).cap(Cap::Round))
        .add_all(dots)
        .add(name.stroke("#20303c", 1.1).cap(Cap::Round).join(Join::Round))
        .moved((10.0 + 160.0 * (place % 4) as f64, 12.0 + 116.0 * (place / 4) as f64))
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let (a, b, c, low) = (pt(40.0, 64.0), pt(120.0, 64.0), pt(80.0, 46.0), pt(80.0, 80.0));
    let tilted =
        Arc { centre: c, radii: pt(60.0, 25.0), tilt: deg(-15.0), start: deg(180.0), sweep: deg(140.0) };
    let (seen, squashed) =
        (tilted.between_seen(deg(20.0), deg(120.0)), Arc { start: deg(20.0), sweep: deg(100.0), ..tilted });
    let radii = |way| start(a).arc_radii(b, (48.0, 28.0), deg(0.0), way).open();
    let on = start((30.0, 30.0)).line((70.0, 30.0)).arc_on((110.0, 75.0)).open();
    let cells: [(&str, Path, Vec<Point>); 16] = [
        ("arc_about 110 degrees", start(low).arc_about(c, deg(110.0)).open(), vec![low, c]),
        ("arc_about -110 degrees", start(low).arc_about(c, deg(-110.0)).open(), vec![low, c]),
        ("arc_via", start(a).arc_via((62.0, 20.0), b).open(), vec![a, pt(62.0, 20.0), b]),
        ("bow 30", start(a).bow(b, 30.0).open(), vec![a, b]),
        ("bow -15", start(a).bow(b, -15.0).open(), vec![a, b]),
        ("arc_on", on, vec![pt(70.0, 30.0), pt(110.0, 75.0)]),
        ("fillet 25", start(a).fillet((80.0, 10.0), b, 25.0).open(), vec![a, pt(80.0, 10.0), b]),
        ("short clockwise", radii(ArcWay::ShortClockwise), vec![a, b]),
        ("long clockwise", radii(ArcWay::LongClockwise), vec![a, b]),
        ("short anticlockwise", radii(ArcWay::ShortAnticlockwise), vec![a, b]),
        ("20 to 120 as seen", seen.path(), vec![seen.at(0.0), c, seen.at(1.0)]),
        ("20 to 120 unsquashed", squashed.path(), vec![squashed.at(0.0), c, squashed.at(1.0)]),
        ("pie", pie(c, 34.0, deg(-60.0), deg(240.0)), vec![c]),
        ("chord_cut", chord_cut(c, 34.0, deg(160.0), deg(220.0)), vec![c]),
        ("ring_part", ring_part(c, 36.0, 22.0, deg(150.0), deg(240.0)), vec![c]),
        ("ring", ring(c, 36.0, 20.0), vec![c]),
    ];
    let cells = cells.into_iter().enumerate().map(|(i, (label, arc, given))| cell(i, label, arc, &given));
    let sheet = sheet(660.0, 490.0).ground("#fbf8f1").add_all(cells);

    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    sheet.save(format!("{folder}/which-arc.svg"))?;
    sheet.save(format!("{folder}/which-arc.png"))?;
    println!("which-arc.svg and which-arc.png are in {folder}");
    Ok(())
}
