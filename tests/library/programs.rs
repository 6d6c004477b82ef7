//! Whole programs as people write them with the library: each does one thing from its first line to its last.

use std::thread;

use chordane::number::Cell;
use chordane::prelude::*;
use chordane::raster::DrawError;
use chordane::sheet::Node;
use chordane::write::{Clip, ClipOptions};
use chordane_score::{Runner, Settings};

type Outcome = Result<(), Box<dyn std::error::Error>>;

#[test]
fn a_kite_of_four_vertices_with_a_tail() -> Outcome {
    let sail = start((0, -60)).line((40, -10)).line((0, 60)).line((-40, -10)).close();
    let tail = start((0, 60)).cubic((30, 90), (-30, 110), (6, 140)).open();
    let page = sheet(160.0, 240.0).centred().add(sail.fill("#c8553d")).add(tail.stroke("#20303c", 2.0));
    let pixels = page.pixels()?;
    assert_eq!((pixels.at(80, 120), pixels.at(5, 5)), (Some([200, 85, 61, 255]), Some([0; 4])));
    Ok(())
}

#[test]
fn a_ring_of_two_thousand_vertices() {
    let count = 2000;
    let at = |i: usize| polar(turns(i as f64 / count as f64), if i.is_multiple_of(2) { 100.0 } else { 92.0 });
    let ring = Path::closed((0..count).map(at));
    assert_eq!(ring.contours()[0].vertices().len(), 2000);
    // All triangles between one vertex, the next, and the middle.
    let exact = 1000.0 * 100.0 * 92.0 * turns(1.0 / 2000.0).sin();
    assert!((ring.area().unwrap() - exact).abs() < 1e-6);
}

/// A type of a program's own, which draws itself and stands for a point.
#[derive(Clone, Copy)]
struct Mast {
    at: (f32, f32),
    high: f32,
}

impl IntoPoint for Mast {
    fn into_point(self) -> Point {
        self.at.into_point()
    }
}

impl From<Mast> for Node {
    fn from(mast: Mast) -> Self {
        let foot = mast.into_point();
        let pole = start(foot).line(foot - pt(0.0, mast.high.into())).open();
        group().add(pole.stroke("#6b4f2a", 3.0)).add(circle(mast, 4.0).fill("#20303c")).into()
    }
}

#[test]
fn a_type_of_ones_own_as_shapes() -> Outcome {
    let masts = [(20.0, 50.0), (60.0, 30.0)].map(|(x, high)| Mast { at: (x, 90.0), high });
    let page = sheet(80.0, 100.0).add_all(masts);
    assert_eq!(page.items().len(), 4);
    assert_eq!(page.scene()?.line_bounds(), Some(Cell { min: pt(16.0, 40.0), max: pt(64.0, 94.0) }));
    assert!(page.svg()?.contains("#6b4f2a"));
    Ok(())
}

#[test]
fn arrows_at_stations_along_a_line() -> Outcome {
    let line = start((10, 80)).cubic((60, 0), (110, 130), (190, 20)).open();
    let survey = line.survey()?;
    let arrow = Path::closed([(0, 0), (-8, 4), (-8, -4)]);
    let arrows: Vec<Item> = survey
        .every(25.0)
        .map(|station| arrow.rotated(station.heading()).moved(station.point()).fill("teal"))
        .collect();
    assert_eq!(arrows.len(), (survey.length() / 25.0) as usize + 1);
    assert_eq!(survey.at(0.5).map(|middle| middle.distance()), Some(survey.length() / 2.0));
    Ok(())
}

#[test]
fn shapes_are_combined_and_their_segments_walked_over() {
    let plate = rectangle((0, 0), 60.0, 40.0).union(circle((60, 20), 20.0)).difference(circle((60, 20), 8.0));
    let (mut lines, mut curves) = (0, 0);
    for segment in plate.segments() {
        match segment {
            Segment::Line { .. } => lines += 1,
            _ => curves += 1,
        }
    }
    assert_eq!((plate.contours().len(), lines), (2, 3));
    assert_eq!(plate.segments().len(), lines + curves);
    // The same from behind.
    let back: Vec<Segment> = plate.segments().rev().collect();
    assert!(plate.segments().eq(back.into_iter().rev()));
}

#[test]
fn a_foreign_document_is_recoloured_and_nothing_else_is_lost() -> Outcome {
    let document = r##"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><title>Sail</title>
        <defs><linearGradient id="g"><stop stop-color="red"/><stop offset="1" stop-color="gold"/></linearGradient></defs>
        <g opacity=".5"><rect id="sail" width="20" height="20" fill="red"/></g><circle cx="30" cy="15" r="9" fill="url(#g)"/></svg>"##;
    let sheet = Sheet::read_svg(document.as_bytes())?.sheet;
    let red = Colour::parse("red")?;
    let teal = sheet.map_items(|item| {
        let is_red = item.style().fill.as_ref().and_then(Paint::colour) == Some(red);
        if is_red { item.fill("teal") } else { item }
    });
    assert_eq!((teal.title.as_deref(), teal.size), (Some("Sail"), pt(40.0, 30.0)));
    let text = teal.svg()?;
    for kept in ["<title>Sail</title>", "opacity=\".5\"", "id=\"sail\"", "linearGradient", "#008080"] {
        assert!(text.contains(kept), "{kept} in {text}");
    }
    assert_eq!(text.matches("#f00").count(), 1, "the gradient's own: {text}");
    Ok(())
}

#[test]
fn what_lies_under_a_click() -> Outcome {
    let page = sheet(100.0, 60.0)
        .add(rectangle((10, 10), 50.0, 40.0).fill("gold").named("sail"))
        .add(circle((50, 30), 15.0).fill("teal").named("vent"));
    let names = |at: (i32, i32)| -> Result<Vec<String>, Fault> {
        page.sound()?;
        Ok(page.items_at(at).filter_map(|hit| hit.placed.item.name().map(str::to_owned)).collect())
    };
    assert_eq!(names((50, 30))?, ["vent", "sail"]);
    assert_eq!(names((90, 50))?, [] as [&str; 0]);
    Ok(())
}

/// A reshape of a program's own: a sail that the wind leans, up to an angle.
struct Lean(Angle);

impl Reshape for Lean {
    fn reshape(&self, path: &Path) -> Path {
        if self.0.abs() > deg(60.0) {
            let message = format!("no sail leans by {}", self.0);
            return path.clone().with_fault(Fault::new("lean", message));
        }
        path.sheared(self.0, Angle::ZERO)
    }
}

#[test]
fn a_reshape_of_ones_own_with_a_fault() {
    let sail = rectangle((0, -40), 20.0, 40.0);
    let leant = sail.then(Lean(deg(20.0)));
    assert!((leant.bounds().unwrap().size().x - 20.0 - 40.0 * deg(20.0).tan()).abs() < 1e-9);
    let error = sheet(90.0, 90.0).add(sail.then(Lean(deg(80.0))).fill("teal")).svg().unwrap_err();
    assert_eq!(error.to_string(), "`lean`: no sail leans by 80 deg");
}

#[test]
fn a_clip_and_its_frames_for_another_encoder() -> Outcome {
    let frame = |share: f64| {
        sheet(32.0, 24.0).ground("#f4efe6").add(circle((4.0 + 24.0 * share, 12.0), 4.0).fill("teal"))
    };
    let mut clip = Vec::new();
    let mut writer = Clip::begin(&mut clip, Format::Apng, (32, 24), ClipOptions::new(8, 1.0))?;
    let mut raw: Vec<[u8; 4]> = Vec::new();
    for i in 0..8 {
        let pixels = frame(f64::from(i) / 8.0).pixels()?;
        writer.push(&pixels)?;
        raw.extend(pixels.into_vec());
    }
    writer.end()?;
    assert!(clip.starts_with(b"\x89PNG"));
    assert_eq!(raw.as_flattened().len(), 8 * 4 * 32 * 24);
    // Or on a buffer of the encoder's.
    let mut buffer = vec![0; 4 * 32 * 24];
    frame(7.0 / 8.0).draw_into(32, 24, &mut buffer)?;
    assert_eq!(raw.as_flattened()[7 * buffer.len()..], buffer);
    Ok(())
}

#[test]
fn a_path_and_a_colour_through_a_file_of_numbers() -> Outcome {
    let sail = star((0, 0), 5, 40.0, 17.0).with_hole(circle((0, 0), 6.0));
    let text = serde_json::to_string(&(&sail, Colour::parse("teal")?))?;
    assert!(text.contains("\"#008080\""), "{text}");
    let (path, colour): (Path, Colour) = serde_json::from_str(&text)?;
    assert_eq!((path, colour.hex().as_str()), (sail, "#008080"));
    Ok(())
}

#[test]
fn a_score_with_settings_of_every_kind() -> Outcome {
    let score = r##"let side = knob("side", 20, 1, 60);
        let mast = knob("mast", pt(10, 10));
        let cloth = knob("cloth", "gold");
        sheet(100, 80).add(given("sail", polygon(mast, 4, side)).fill(cloth))"##;
    let runner = Runner::read("sail.chord", score, Default::default())?;
    let own = circle((50, 40), 12.0);
    let settings =
        Settings::new().set("side", 30).set("mast", pt(50.0, 40.0)).set("cloth", Colour::parse("teal")?);
    let drawn = runner.run(&settings).into_sheet()?;
    assert_eq!(drawn, sheet(100.0, 80.0).add(polygon((50, 40), 4, 30.0).fill("teal").at_line(4)));
    let given = runner.run(&settings.give("sail", own.clone())).into_sheet()?;
    assert_eq!(given.items().next().map(|placed| placed.path()), Some(own));
    // What cannot be is an error, and not the score as if nothing had been said.
    for wrong in [
        Settings::new().set("sied", 30),
        Settings::new().set("side", 300),
        Settings::new().set("side", "red"),
    ] {
        assert!(runner.run(&wrong).into_sheet().is_err());
    }
    Ok(())
}

#[test]
fn a_thousand_pictures_on_threads() {
    let draw = |i: usize| -> Result<[u8; 4], DrawError> {
        let shade = hsl(turns(i as f64 / 1000.0), 0.6, 0.5);
        Ok(sheet(8.0, 8.0).add(circle((4, 4), 3.5).fill(shade)).pixels()?.at(4, 4).unwrap_or_default())
    };
    let alone: Vec<[u8; 4]> = (0..1000).map(|i| draw(i).unwrap()).collect();
    let together: Vec<[u8; 4]> = thread::scope(|scope| {
        let workers: Vec<_> = (0..4)
            .map(|k| scope.spawn(move || (250 * k..250 * (k + 1)).map(draw).collect::<Vec<_>>()))
            .collect();
        workers.into_iter().flat_map(|worker| worker.join().unwrap()).map(Result::unwrap).collect()
    });
    assert_eq!(alone, together);
}

#[test]
fn values_go_from_thread_to_thread() {
    fn everywhere<T: Send + Sync>() {}
    everywhere::<(Path, Contour, Pen, Segment, Vertex, Through, Affine)>();
    everywhere::<(Item, Group, Sheet, Style, Node, Paint, Gradient, Pattern, Picture, Shades, Mask)>();
    everywhere::<(Colour, Angle, Point, Extent, Cell, Dice, Fault, Pixels, WriteOptions)>();
    everywhere::<(chordane::scene::Scene<'_>, chordane::scene::Placed<'_>, chordane::scene::Index<'_, '_>)>();
    everywhere::<(chordane::measure::Survey, chordane::check::Report, chordane::check::Finding)>();
    everywhere::<(Keys<f64>, Timeline, Pose, Easing, Morph, Stamp<Item>)>();
    everywhere::<(Format, DrawError, chordane::write::SaveError, chordane::read::SvgReading)>();
    everywhere::<(Runner<'_>, chordane_score::Run, Settings, chordane_score::Script, chordane_score::Words)>(
    );
    everywhere::<(chordane_score::ScoreError, chordane_score::Stage, chordane_score::Pictures)>();
}
