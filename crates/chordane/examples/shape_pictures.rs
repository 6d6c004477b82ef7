//! The guide's pictures: one small SVG for each ready shape.
//!
//!     cargo run --example shape_pictures [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::prelude::*;

const O: Point = Point::ZERO;

fn arch() -> Path {
    start((-44.0, 8.0)).bow((44.0, 8.0), 20.0).open()
}

fn filled() -> Vec<(&'static str, Path)> {
    let honeycomb = cell((-45.0, -40.0), 90.0, 80.0).honeycomb(4, 3);
    let honeycomb = honeycomb.fold(Path::empty(), |all, cell| all.and(&cell.inset(1.5).hexagon()));
    let seeds = golden_places(80, 5.0).fold(Path::empty(), |all, place| all.and(&circle(place, 1.8)));
    vec![
        ("polygon", polygon(O, 5, 45.0)),
        ("polygon_about", polygon_about(O, 6, 40.0).and(&circle(O, 40.0)).with_fill_rule(FillRule::EvenOdd)),
        ("polygon_of_side", polygon_of_side(O, 8, 34.0)),
        ("rounded_polygon", rounded_polygon((0.0, 8.0), 3, 50.0, 9.0)),
        ("wheel_polygon", wheel_polygon(O, 4, 45.0, 0.6)),
        ("star", star(O, 6, 45.0, 22.0)),
        ("rounded_star", rounded_star(O, 5, 48.0, 22.0, 5.0, 5.0)),
        ("star_polygon", star_polygon(O, 8, 3, 45.0).with_fill_rule(FillRule::EvenOdd)),
        ("circle", circle(O, 42.0)),
        ("ellipse", ellipse(O, 46.0, 28.0)),
        ("superellipse", superellipse(O, 46.0, 36.0, 4.0)),
        ("rose", rose(O, 5, 1, 48.0)),
        ("pie", pie((0.0, 26.0), 56.0, deg(-130.0), deg(80.0))),
        ("chord_cut", chord_cut(O, 45.0, deg(160.0), deg(220.0))),
        ("ring", ring(O, 45.0, 30.0)),
        ("ring_part", ring_part((0.0, 10.0), 45.0, 28.0, deg(150.0), deg(240.0))),
        ("rectangle", rectangle((-45.0, -28.0), 90.0, 56.0)),
        ("rounded_rectangle", rounded_rectangle((-45.0, -28.0), 90.0, 56.0, [18.0, 18.0, 4.0, 4.0])),
        ("triangle", Triangle::by_legs(90.0, 60.0).map(|t| t.centred(O)).unwrap_or_default()),
        ("gear", gear(O, 14, 46.0, 37.0)),
        ("scallop", scallop(O, 10, 38.0, 7.0)),
        ("blob", blob(O, [40.0, 48.0, 33.0, 44.0, 36.0, 47.0, 38.0])),
        ("band", band(arch(), arch().moved((0.0, 24.0)))),
        ("honeycomb", honeycomb),
        ("golden_places", seeds),
    ]
}

fn stroked() -> Vec<(&'static str, Path)> {
    let lace = wheel(28.0, 1.0, deg(0.0)).wheel(13.0, -6.0, deg(0.0)).wheel(4.0, 15.0, deg(0.0));
    vec![
        ("wheel", lace.path()),
        ("wheels_inside", wheels_inside(O, 46.0, 17.25, 15.0).path()),
        ("wheels_outside", wheels_outside(O, 22.0, 8.8, 12.0).path()),
        ("cycloid", cycloid((-47.0, 10.0), 7.5, 7.5, 2.0)),
        ("lissajous", lissajous(O, 46.0, 38.0, 3, 2, deg(90.0))),
        ("spiral", spiral(O, 2.0, 46.0, 5.0)),
        ("growing_spiral", growing_spiral((4.0, 4.0), 2.0, 46.0, 3.0)),
        ("sided_spiral", sided_spiral(O, 4, 3.0, 48.0, 5.0)),
        ("plot", plot(-46.0, 46.0, 0.05, |x| -34.0 * (x / 5.0).cos() * (1.0 - x * x / 2116.0))),
        ("trail", trail(200, |share| polar(turns(5.0 * share), 12.0 + 34.0 * share))),
        ("waved", circle(O, 38.0).waved(6.0, 16.0)),
        ("rippled", Path::open([(-46.0, 0.0), (46.0, 0.0)]).rippled(18.0, 8.0)),
        ("zigzagged", arch().zigzagged(6.0, 12.0)),
        ("scalloped", polygon(O, 4, 44.0).scalloped(6.0, 14.0)),
        ("toothed", circle(O, 38.0).toothed(6.0, 14.0)),
        ("coiled", arch().coiled(10.0, 9.0)),
    ]
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    let page = || sheet(110.0, 110.0).centred();
    for (name, path) in filled() {
        page().add(path.fill("#2f6f73")).save(format!("{folder}/{name}.svg"))?;
    }
    for (name, path) in stroked() {
        page().add(path.stroke("#c8553d", 2.0).join(Join::Round)).save(format!("{folder}/{name}.svg"))?;
    }
    let vent = Path::closed([(0.0, -9.0), (7.0, 6.0), (-7.0, 6.0)]).fill("#2f6f73");
    page().add(ring_of(vent, 9, 36.0)).save(format!("{folder}/ring_of.svg"))?;
    let hoops =
        around(9).map(|angle| circle(polar(angle, 26.0), 17.0).fill("#d9a441").stroke("#6b4423", 2.0));
    page().add(woven(hoops)).save(format!("{folder}/woven.svg"))?;
    println!("the guide's pictures are in {folder}");
    Ok(())
}
