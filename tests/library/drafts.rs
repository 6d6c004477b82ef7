//! Drafts: steps and their undoing, what is near, and the texts, which draw the same.

use chordane::chance::Dice;
use chordane::draft::{Draft, PictureEdges, Step, StepError, VertexKind};
use chordane::prelude::*;

fn add(x: f64, y: f64) -> Step {
    Step::Add { at: pt(x, y), kind: VertexKind::Corner }
}

/// A sail with a soft side and a rounded corner, a hole in it, and a line that is being drawn.
fn sail() -> Draft {
    let mut draft = Draft::new();
    let steps = [
        add(10.0, 10.0),
        Step::Add { at: pt(90.0, 20.0), kind: VertexKind::Rounded(8.0) },
        add(80.0, 90.0),
        add(15.0, 80.0),
        Step::Finish { closed: true },
        Step::Insert { shape: 1, side: 3, at: pt(2.0, 45.0), kind: VertexKind::Soft },
        Step::Hole { shape: 1 },
        add(40.0, 40.0),
        add(60.0, 40.0),
        add(50.0, 60.0),
        Step::Finish { closed: true },
        add(5.0, 95.0),
        add(95.0, 97.5),
    ];
    for step in steps {
        draft.apply(step).unwrap();
    }
    draft
}

#[test]
fn shapes_are_drawn_finished_and_have_holes() -> Result<(), Fault> {
    let draft = sail();
    let ids: Vec<(usize, usize, Option<usize>)> =
        draft.shapes().map(|shape| (shape.id, shape.vertices.len(), shape.hole_of)).collect();
    assert_eq!(ids, [(1, 5, None), (2, 3, Some(1)), (3, 2, None)]);
    assert_eq!(draft.active().map(|shape| shape.id), Some(3));
    let paths = draft.paths();
    assert_eq!((paths.len(), paths[0].contours().len()), (2, 2));
    // The hole is one.
    let whole = draft.shape(1).unwrap().outline().area()?;
    assert!((whole - paths[0].area()? - 200.0).abs() < 1e-9);
    Ok(())
}

#[test]
fn empty_shapes_vanish_and_holes_go_with_their_shape() {
    let mut draft = Draft::new();
    draft.apply(add(1.0, 1.0)).unwrap();
    draft.apply(Step::Finish { closed: true }).unwrap();
    assert_eq!(draft.shapes().len(), 0);
    assert_eq!(draft.apply(Step::Finish { closed: true }), Err(StepError::NothingActive));
    let mut draft = sail();
    for vertex in [1, 0] {
        draft.apply(Step::Remove { shape: 3, vertex }).unwrap();
    }
    assert_eq!((draft.shapes().len(), draft.active()), (2, None));
    draft.apply(Step::Delete { shape: 1 }).unwrap();
    assert_eq!(draft.shapes().len(), 0);
    // Ids are not used again.
    draft.apply(add(0.0, 0.0)).unwrap();
    assert_eq!(draft.shapes().next().map(|shape| shape.id), Some(4));
}

#[test]
fn what_cannot_be_done_says_why_and_changes_nothing() {
    let mut draft = sail();
    let kind = VertexKind::Corner;
    let nan = pt(f64::NAN, 0.0);
    for (step, why) in [
        (Step::Pick { shape: 9 }, "there is no shape 9"),
        (Step::Move { shape: 1, vertex: 5, to: pt(0.0, 0.0) }, "shape 1 has no vertex or side 5"),
        (Step::Insert { shape: 3, side: 1, at: pt(0.0, 0.0), kind }, "shape 3 has no vertex or side 1"),
        (Step::Hole { shape: 2 }, "shape 2 is a hole itself; begin the hole in the shape around it"),
        (Step::Add { at: nan, kind }, "positions and radii must be finite numbers, radii 0 or more"),
        (
            Step::Change { shape: 1, vertex: 0, kind: VertexKind::Rounded(-1.0) },
            "positions and radii must be finite numbers, radii 0 or more",
        ),
    ] {
        assert_eq!(draft.apply(step).unwrap_err().to_string(), why);
        assert_eq!(draft, sail());
    }
}

#[test]
fn undoing_passes_over_the_picking_of_shapes() {
    let mut draft = sail();
    let before = draft.clone();
    draft.apply(Step::Shift { shape: 1, by: pt(5.0, 0.0) }).unwrap();
    draft.apply(Step::Pick { shape: 1 }).unwrap();
    draft.apply(Step::Pick { shape: 3 }).unwrap();
    let after = draft.clone();
    // The hole went along.
    assert_eq!(draft.shape(2).unwrap().vertices[0].at, pt(45.0, 40.0));
    assert!(draft.undo());
    assert_eq!(draft, before);
    assert!(draft.redo());
    assert_eq!((&draft, draft.undone()), (&after, 0));
    assert!(!draft.redo());
}

/// A draft of thousands of steps is, after any number of undos, the draft that the remaining steps make.
#[test]
fn a_long_way_is_gone_back_step_by_step() {
    let mut dice = Dice::new(21, "long ways");
    let mut draft = Draft::new();
    while draft.steps().len() < 5000 {
        let _ = draft.apply(any_step(&mut dice));
    }
    let steps: Vec<Step> = draft.steps().copied().collect();
    let end = draft.clone();
    for goal in [4999, 4990, 4700, 2000, 255, 1, 0] {
        while draft.steps().len() > goal {
            assert!(draft.undo());
        }
        let count = draft.steps().len();
        assert_eq!(draft, Draft::of(steps[..count].iter().copied()), "{count}");
    }
    while draft.redo() {}
    assert_eq!(draft, end);
    // Another way from the middle on.
    for _ in 0..1000 {
        draft.undo();
    }
    let count = draft.steps().len();
    draft.apply(Step::Add { at: pt(1.0, 2.0), kind: VertexKind::Corner }).unwrap();
    let more: Vec<Step> = draft.steps().copied().collect();
    assert_eq!((more.len(), &draft), (count + 1, &Draft::of(more.iter().copied())));
    assert!(!draft.redo());
}

fn any_step(dice: &mut Dice) -> Step {
    let shape = dice.whole(1, 5) as usize;
    let place = dice.whole(0, 5) as usize;
    let at = pt(dice.between(0.0, 100.0), dice.between(0.0, 100.0));
    let kind = match dice.whole(0, 2) {
        0 => VertexKind::Corner,
        1 => VertexKind::Soft,
        _ => VertexKind::Rounded(dice.between(0.0, 20.0)),
    };
    match dice.whole(0, 13) {
        0 => Step::Insert { shape, side: place, at, kind },
        1 => Step::Move { shape, vertex: place, to: at },
        2 => Step::Shift { shape, by: at },
        3 => Step::Change { shape, vertex: place, kind },
        4 => Step::Remove { shape, vertex: place },
        5 | 6 => Step::Finish { closed: place.is_multiple_of(2) },
        7 => Step::Hole { shape },
        8 => Step::Pick { shape },
        9 => Step::Delete { shape },
        _ => Step::Add { at, kind },
    }
}

/// Whatever is done, undone and done again, the draft is what its steps make from nothing.
#[test]
fn a_draft_is_what_its_steps_make() {
    let mut dice = Dice::new(4, "drafts");
    for _ in 0..60 {
        let mut draft = Draft::new();
        for _ in 0..60 {
            match dice.whole(0, 5) {
                0 => drop(draft.undo()),
                1 => drop(draft.redo()),
                _ => drop(draft.apply(any_step(&mut dice))),
            }
            assert_eq!(Draft::of(draft.steps().copied()), draft);
            assert!(draft.shapes().all(|shape| !shape.vertices.is_empty()));
            assert!(draft.shapes().all(|shape| shape.hole_of.is_none_or(|of| draft.shape(of).is_some())));
        }
        let last = draft.clone();
        let count = draft.steps().len();
        while draft.undo() {}
        assert!(draft.shapes().len() == 0);
        while draft.steps().len() < count && draft.redo() {}
        assert_eq!((draft.steps().len(), &draft), (count, &last));
    }
}

#[test]
fn what_is_near_is_found() {
    let draft = sail();
    assert_eq!(draft.vertex_near(pt(81.0, 88.0), 5.0), Some((1, 2)));
    assert_eq!(draft.vertex_near(pt(70.0, 70.0), 5.0), None);
    assert_eq!(draft.shape_at(pt(20.0, 20.0)), Some(1));
    assert_eq!(draft.shape_at(pt(50.0, 45.0)), Some(2));
    assert_eq!(draft.shape_at(pt(99.0, 1.0)), None);
    // Each side is found from its middle, as the outline has it.
    for shape in draft.shapes() {
        for (side, vertex) in shape.vertices.iter().enumerate().take(shape.sides()) {
            let next = shape.vertices[(side + 1) % shape.vertices.len()];
            let found = draft.side_near(vertex.at.lerp(next.at, 0.5), 12.0);
            assert_eq!(found.map(|(shape, side, _)| (shape, side)), Some((shape.id, side)));
        }
    }
    assert_eq!(draft.snapped(pt(81.0, 88.0), Some(10.0), 5.0, None), pt(80.0, 90.0));
    assert_eq!(draft.snapped(pt(71.0, 68.0), Some(10.0), 5.0, None), pt(70.0, 70.0));
    assert_eq!(draft.snapped(pt(94.0, 97.0), None, 5.0, Some((3, 1))), pt(94.0, 97.0));
}

#[test]
fn the_texts_of_a_draft_say_what_it_is() -> Result<(), Fault> {
    let draft = sail();
    let paths: Vec<Path> = draft.data().lines().map(|line| Path::from_data(line).unwrap()).collect();
    for (read, own) in paths.iter().zip(draft.paths()).take(1) {
        assert!((read.area()? - own.area()?).abs() < 0.1);
    }
    assert_eq!(paths.len(), 2);
    Ok(())
}

/// A journal: each step is a line of JSON, and the lines make the draft again.
#[test]
fn steps_are_lines_of_a_journal() {
    let mut dice = Dice::new(6, "journal");
    let mut draft = sail();
    for _ in 0..100 {
        let _ = draft.apply(any_step(&mut dice));
    }
    let lines: Vec<String> = draft.steps().map(|step| serde_json::to_string(step).unwrap()).collect();
    assert_eq!(lines[0], "{\"add\":{\"at\":[10.0,10.0],\"kind\":\"corner\"}}");
    assert_eq!(lines[1], "{\"add\":{\"at\":[90.0,20.0],\"kind\":{\"rounded\":8.0}}}");
    let read = lines.iter().map(|line| serde_json::from_str::<Step>(line).unwrap());
    assert_eq!(Draft::of(read), draft);
}

/// A sheet as a picture of its pixels.
fn photographed(page: &Sheet) -> Picture {
    page.pixels().unwrap().into()
}

#[test]
fn the_areas_of_a_picture_become_shapes_of_few_vertices() {
    let corners = [(20.5, 30.0), (110.0, 18.0), (140.0, 90.5), (60.0, 120.0)];
    let sail = Path::closed(corners).with_hole(circle((80.0, 66.0), 18.0));
    let page = sheet(320.0, 160.0)
        .ground("#cfe3e8")
        .add(sail.fill("#c8553d"))
        .add(ellipse((230.0, 80.0), 60.0, 35.0).fill("#2f6f73"))
        .add(circle((300.0, 150.0), 1.5).fill("#20303c"));
    let draft = Draft::of_picture(&photographed(&page), 0.75).unwrap();
    let shapes: Vec<_> = draft.shapes().collect();
    // The sail and its vent, and the ellipse; the speck is none.
    assert_eq!(shapes.len(), 3);
    let [sail_of, vent_of, ellipse_of] = &shapes[..] else { panic!("{shapes:?}") };
    assert_eq!(vent_of.hole_of, Some(sail_of.id));
    assert_eq!(sail_of.vertices.len(), 4);
    for corner in corners {
        let near = sail_of.vertices.iter().map(|vertex| vertex.at.distance(corner.into()));
        assert!(near.fold(f64::INFINITY, f64::min) < 0.5, "{corner:?} {:?}", sail_of.vertices);
    }
    for (shape, meant) in
        [(ellipse_of, ellipse((230.0, 80.0), 60.0, 35.0)), (vent_of, circle((80.0, 66.0), 18.0))]
    {
        assert!(shape.vertices.len() <= 12, "{}", shape.vertices.len());
        let survey = meant.survey().unwrap();
        for station in shape.outline().survey().unwrap().split(60, false) {
            let off = survey.nearest(station.point()).unwrap().point().distance(station.point());
            assert!(off < 1.1, "{off} at {}", station.point());
        }
    }
    assert_eq!(
        Draft::of_picture(&photographed(&sheet(40.0, 30.0).ground("white")), 0.75).unwrap(),
        Draft::new()
    );
    assert_eq!(
        Draft::of_picture(&Picture::from_rgba(1, 1, &[0; 4]).unwrap(), f64::NAN).unwrap(),
        Draft::new()
    );
}

/// Whatever polygon is drawn: its corners are found.
#[test]
fn corners_of_random_sails_are_found() {
    let mut dice = Dice::new(17, "sails");
    for _ in 0..12 {
        let count = dice.whole(3, 6) as usize;
        let corners: Vec<Point> =
            around(count).map(|angle| pt(100.0, 100.0) + polar(angle, dice.between(60.0, 85.0))).collect();
        let sail = Path::closed(corners.iter().copied());
        let page = sheet(200.0, 200.0).ground("white").add(sail.fill("#2f6f73"));
        let draft = Draft::of_picture(&photographed(&page), 0.75).unwrap();
        let [shape] = &draft.shapes().collect::<Vec<_>>()[..] else { panic!("there is one sail") };
        for corner in corners {
            let near = shape.vertices.iter().map(|vertex| vertex.at.distance(corner));
            assert!(near.fold(f64::INFINITY, f64::min) < 0.9, "{corner} {:?}", shape.vertices);
        }
    }
}

/// On an edge at any angle, whatever is near settles on it.
#[test]
fn vertices_settle_on_edges() {
    let mut dice = Dice::new(4, "edges");
    for _ in 0..40 {
        let angle = turns(dice.between(0.0, 1.0));
        let (middle, along) = (pt(40.0, 30.0), polar(angle, 1.0));
        let side = along.perp();
        let half = Path::closed([
            middle - along * 99.0,
            middle + along * 99.0,
            middle + along * 99.0 + side * 99.0,
            middle - along * 99.0 + side * 99.0,
        ]);
        let page = sheet(80.0, 60.0).ground("#f4efe6").add(half.fill("#c8553d"));
        let edges = PictureEdges::of(&photographed(&page));
        let spot = middle + along * dice.between(-15.0, 15.0) + side * dice.between(-4.0, 4.0);
        let settled = edges.near(spot, 6.0).unwrap();
        let off = (settled - middle).perp_dot(along).abs();
        assert!(off < 0.3, "{off} from {spot} to {settled}");
        // No farther along than pixels are wide.
        assert!((settled - spot).dot(along).abs() < 1.5);
    }
}

/// Each hole belongs to the shape that it lies in, whatever was proposed before.
#[test]
fn holes_of_proposed_outlines_belong_to_their_shapes() {
    let hoop = |x: f64, radius: f64| circle((x, 80.0), radius).with_hole(circle((x, 80.0), radius * 0.5));
    let page = sheet(360.0, 160.0)
        .ground("white")
        .add(hoop(80.0, 60.0).fill("#c8553d"))
        .add(hoop(200.0, 44.0).fill("#2f6f73"))
        .add(hoop(300.0, 30.0).fill("#c8553d"));
    let draft = Draft::of_picture(&photographed(&page), 0.75).unwrap();
    let holes: Vec<_> = draft.shapes().map(|shape| (shape.id, shape.hole_of)).collect();
    assert_eq!(holes, [(1, None), (2, Some(1)), (3, None), (4, Some(3)), (5, None), (6, Some(5))]);
    for shape in draft.shapes().filter(|shape| shape.hole_of.is_some()) {
        let outer = draft.shape(shape.hole_of.unwrap()).unwrap();
        assert!(outer.outline().inside(shape.vertices[0].at));
    }
}

/// A shape becomes a hole of the smallest one that it lies in; what cannot be one stays as it is.
#[test]
fn shapes_are_turned_into_holes_and_filled() {
    let mut draft = Draft::new();
    let square = |draft: &mut Draft, at: f64, side: f64, closed: bool| {
        for (x, y) in [(0.0, 0.0), (side, 0.0), (side, side), (0.0, side)] {
            draft.apply(Step::Add { at: pt(at + x, at + y), kind: VertexKind::Corner }).unwrap();
        }
        draft.apply(Step::Finish { closed }).unwrap();
    };
    square(&mut draft, 0.0, 100.0, true);
    square(&mut draft, 10.0, 50.0, true);
    square(&mut draft, 20.0, 10.0, true);
    square(&mut draft, 40.0, 10.0, false);
    square(&mut draft, 90.0, 30.0, true);
    let turn = |draft: &mut Draft, shape: usize| draft.apply(Step::MakeHole { shape });
    turn(&mut draft, 3).unwrap();
    assert_eq!(draft.shape(3).unwrap().hole_of, Some(2));
    let told = |error: StepError| error.to_string();
    let nowhere = |shape: usize| {
        format!("shape {shape} cannot be a hole: it has to be closed, and to lie in another closed shape")
    };
    assert_eq!(turn(&mut draft, 1).map_err(told), Err(nowhere(1)));
    assert_eq!(turn(&mut draft, 4).map_err(told), Err(nowhere(4)));
    assert_eq!(turn(&mut draft, 5).map_err(told), Err(nowhere(5)));
    assert_eq!(
        turn(&mut draft, 2).map_err(told),
        Err("shape 2 has holes itself, so that it cannot be one".to_owned())
    );
    assert_eq!(turn(&mut draft, 3), Err(StepError::HoleInHole(3)));
    draft.apply(Step::Fill { shape: 2, colour: [217, 164, 65] }).unwrap();
    let data = draft.data();
    assert_eq!(draft.paths()[1].contours().len(), 2, "{data}");
    assert_eq!(draft.shape(2).unwrap().fill(), "#d9a441");
    assert!(draft.undo() && draft.undo());
    assert_eq!((draft.shape(3).unwrap().hole_of, draft.shape(2).unwrap().colour), (None, None));
    assert!(draft.redo() && draft.redo());
    assert_eq!(draft.data(), data);
}
