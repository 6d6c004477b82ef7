//! Triangles: what is not known follows from what is. A right-angled spar, its turns, and its circles.
//!
//!     cargo run --example triangles [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::prelude::*;

fn label(text: &str, at: Point) -> Item {
    let middle = at - pt(0.5 * lettering_width(text, 10.0), -4.0);
    lettering(text, middle, 10.0).stroke("#20303c", 1.3).cap(Cap::Round).join(Join::Round)
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let spar = Triangle::by_legs(300.0, 190.0)?;
    // From the right angle at C the pen walks side b to A, c to B and a back, and turns at each by what the triangle says.
    let ([a, b, c], [at_a, at_b, _]) = (spar.sides(), spar.turns());
    let walked = start((40.0, 60.0)).ahead(b).turn(at_a).ahead(c).turn(at_b).ahead(a).close();

    // The same triangle round a point, with its angles.
    let centre = pt(420.0, 200.0);
    let placed = spar.centred(centre);
    let corners: Vec<Point> = placed.contours().iter().flat_map(Contour::vertices).collect();
    // A path goes round by A, C and B.
    let [angle_a, angle_b, angle_c] = spar.angles();
    let mut sheet = sheet(640.0, 400.0).ground("#fbf8f1");
    sheet = sheet.add(walked.stroke("#c8553d", 3.0).join(Join::Round));
    sheet = sheet.add(placed.fill("#d9a441"));
    for (corner, angle) in corners.iter().zip([angle_a, angle_c, angle_b]) {
        let text = format!("{:.1}", angle.degrees());
        sheet = sheet.add(label(&text, *corner + (*corner - centre).normalize() * 18.0));
    }
    // What cannot be is refused, with the reason.
    let refused =
        Triangle::by_sides(10.0, 20.0, 40.0).map_or_else(|reason| reason.to_string(), |_| String::new());
    let (seen, mend) = refused.split_once("; ").unwrap_or((&refused, ""));
    sheet = sheet.add(label(seen, pt(320.0, 350.0))).add(label(mend, pt(320.0, 370.0)));

    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    sheet.save(format!("{folder}/triangles.svg"))?;
    sheet.save(format!("{folder}/triangles.png"))?;
    println!("triangles.svg and triangles.png are in {folder}");
    Ok(())
}
