//! What follows a line: bows that shrink, a stroke that tapers, stitches, and a reshape of one's own.
//!
//!     cargo run --example along_the_line [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::prelude::*;

/// A step down and to the right, as a shadow falls: a reshape of one's own.
struct Shadow(f64);

impl Reshape for Shadow {
    fn reshape(&self, path: &Path) -> Path {
        path.moved((self.0, self.0))
    }
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let mut sheet = sheet(640.0, 480.0).ground("#f4efe6");

    // A tail that tapers, and bows along it that shrink and change colour.
    let tail = through([(60.0, 50.0), (150.0, 150.0), (60.0, 260.0), (150.0, 430.0)]).open();
    let bow = Path::closed([(0.0, 0.0), (16.0, -14.0), (26.0, -12.0), (26.0, 12.0), (16.0, 14.0)])
        .rounded(3.0)
        .then(Mirror { beside: true, ..Mirror::new((0.0, 0.0), deg(90.0)) });
    let bows =
        Stamp::new(bow).every(42.0).lead_in(20.0).turn(|_| deg(90.0)).scale(|at| 1.1 - 0.7 * at.share());
    sheet = sheet.add(tail.then(LineStyle::new(9.0).tapered(|share| 1.0 - 0.8 * share)).fill("#20303c"));
    sheet = sheet.add(bows.along_with(&tail, |at, bow| {
        bow.fill(format!("hsl({} 55% 48%)", (20.0 + 150.0 * at.share()).round()).as_str())
    }));

    // A sail with soft corners, its hem, its shadow, and stitches.
    let sail =
        Path::closed([(250.0, 60.0), (420.0, 40.0), (390.0, 200.0), (270.0, 190.0)]).then(Round::new(18.0));
    let hem = sail.offset(14.0);
    sheet = sheet
        .add(hem.then(Shadow(6.0)).fill("#d8cbb0"))
        .add(hem.fill("#f7ecd2"))
        .add(sail.clone().fill("#c8553d"));
    let stitches = sail.offset(7.0).then(Dash { fit: DashFit::Whole, ..Dash::new([8.0, 6.0]) });
    sheet = sheet.add(stitches.stroke("#20303c", 2.0).cap(Cap::Round));

    // A line on the way from calm to wild, step by step.
    let (calm, wild) = (Path::open([(250.0, 300.0), (600.0, 300.0)]), Ripple::new(28.0, 60.0));
    for step in 0..=4 {
        let line = calm.moved((0.0, 36.0 * f64::from(step)));
        let blend = line.then(Blend::new(Subdivide::into(6), wild, f64::from(step) / 4.0));
        sheet = sheet.add(blend.stroke("#2f6f73", 3.0).join(Join::Round));
    }
    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    for ending in ["svg", "png"] {
        sheet.save(format!("{folder}/along-the-line.{ending}"))?;
    }
    println!("along-the-line.svg and along-the-line.png are in {folder}");
    Ok(())
}
