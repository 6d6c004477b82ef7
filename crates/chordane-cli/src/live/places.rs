//! What lies at a place of the picture: the item, and what of it can be taken hold of.

use chordane::ground::{short, visible};
use chordane::number::Point;
use chordane::path::{Contour, Path};
use chordane::scene::{Grip, GripKind, Placed};
use chordane::sheet::Layered;
use chordane_score::{Hold, Holds, Script};

use super::message::{GripTold, ItemTold};
use super::runs::Ran;
use super::text::units;

/// So many places that move along are shown.
const MAX_MOVED_SHOWN: usize = 300;

/// The most grips at one position that can be told apart.
const MAX_NEAR: usize = 8;

/// The most holds that are offered for each grip beneath another.
const MAX_BENEATH: usize = 2;

/// So many items of one line are shown.
const MAX_ITEMS_PER_LINE: usize = 60;

/// An item with more segments than this is told without its area, which takes long to find.
const MAX_MEASURED_SEGMENTS: usize = 5000;

/// An outline of more segments than this is not shown again over the picture.
const MAX_OUTLINE_SEGMENTS: usize = 50_000;

/// What lies under a place.
pub(crate) fn item_at(ran: &Ran, at: Point, reach: f64) -> Option<ItemTold> {
    let hit = ran.sheet.item_at(at).or_else(|| {
        let scene = ran.sheet.scene().ok()?;
        scene.index().items_at(at, reach).into_iter().next()
    })?;
    Some(item_told(ran, &hit.placed, at))
}

/// The item of a grip.
pub(crate) fn item_of(ran: &Ran, grip: &Grip) -> Option<ItemTold> {
    let placed = ran.sheet.items().nth(grip.item)?;
    Some(item_told(ran, &placed, grip.at))
}

fn item_told(ran: &Ran, placed: &Placed<'_>, at: Point) -> ItemTold {
    let own = placed.transform.inverse().transform_point2(at);
    let path = placed.path().transformed(&ran.view.inverse());
    let segments: usize = path.contours().iter().map(|contour| contour.segments().count()).sum();
    ItemTold {
        number: placed.number,
        name: placed.item.name().map(|name| visible(name).into_owned()),
        line: placed.line(),
        outline: if segments <= MAX_OUTLINE_SEGMENTS { path.data_rounded(3) } else { String::new() },
        own: (own.is_finite() && own.distance(at) > 1e-9).then_some(own.to_array()),
        figures: figures(&path, segments),
    }
}

/// The outlines of the items that a line of the text makes.
pub(crate) fn of_line(ran: &Ran, line: usize) -> Vec<String> {
    let to_told = ran.view.inverse();
    let own = ran.sheet.items().filter(|placed| placed.line() == Some(line)).take(MAX_ITEMS_PER_LINE);
    own.map(|placed| placed.path().transformed(&to_told))
        .filter(|path| {
            path.contours().iter().map(Contour::vertex_count).sum::<usize>() <= MAX_OUTLINE_SEGMENTS
        })
        .map(|path| path.data_rounded(3))
        .collect()
}

/// What an item measures, in a line.
fn figures(path: &Path, segments: usize) -> String {
    // A curve that comes back to where it began ends on its first vertex.
    let own = |contour: &Contour| {
        let comes_back =
            contour.is_closed() && contour.vertex_count() > 1 && contour.start() == contour.end();
        contour.vertex_count() - usize::from(comes_back)
    };
    let vertices: usize = path.contours().iter().map(own).sum();
    let mut parts = vec![format!("{vertices} {}", if vertices == 1 { "vertex" } else { "vertices" })];
    if path.contours().len() > 1 {
        parts.push(format!("{} contours", path.contours().len()));
    }
    parts.push(
        if path.contours().iter().all(|contour| contour.is_closed()) { "closed" } else { "open" }.to_owned(),
    );
    if let Some(bounds) = path.bounds() {
        parts.push(format!("{} × {}", short(bounds.size().x, 5), short(bounds.size().y, 5)));
    }
    if segments <= MAX_MEASURED_SEGMENTS {
        if let Ok(length) = path.length() {
            parts.push(format!("length {}", short(length, 5)));
        }
        if let Ok(area) = path.area() {
            parts.push(format!("area {}", short(area, 5)));
        }
    }
    parts.join(" · ")
}

/// The places within reach of a point that can be taken hold of, the nearest first: of those that stand together a vertex before a control point, and the
/// centre last.
pub(crate) fn grips_near(grips: &[Grip], at: Point, reach: f64) -> Vec<usize> {
    let rank = |kind: GripKind| match kind {
        GripKind::Vertex { .. } => 0,
        GripKind::Control { .. } => 1,
        GripKind::Gradient { .. } => 2,
        _ => 3,
    };
    let within = grips.iter().enumerate().filter(|(_, grip)| grip.at.distance(at) <= reach);
    let mut near: Vec<(usize, &Grip)> = within.collect();
    near.sort_by(|(_, a), (_, b)| {
        let key = |grip: &Grip| ((grip.at.distance(at) / reach * 4.0).floor(), rank(grip.kind));
        // What is drawn later lies on top.
        key(a).partial_cmp(&key(b)).unwrap_or(std::cmp::Ordering::Equal).then(b.item.cmp(&a.item))
    });
    near.into_iter().map(|(at, _)| at).take(MAX_NEAR).collect()
}

/// The holds of all grips at a position: those of the topmost grip first, and grips that cannot be moved last.
pub(crate) fn ways(holds: &Holds, near: &[usize]) -> Vec<(usize, Option<Hold>)> {
    let (mut movable, mut stuck) = (Vec::new(), Vec::new());
    for grip in near {
        // The best holds are enough for a grip beneath another.
        let most = if movable.is_empty() { usize::MAX } else { MAX_BENEATH };
        let of: Vec<Hold> = holds.of(*grip).into_iter().take(most).collect();
        if of.is_empty() {
            stuck.push((*grip, None));
        }
        movable.extend(of.into_iter().map(|hold| (*grip, Some(hold))));
    }
    movable.append(&mut stuck);
    movable
}

/// What a grip is, in words.
pub(crate) fn words_for(kind: GripKind) -> String {
    match kind {
        GripKind::Vertex { contour: 0, vertex } => format!("vertex {vertex}"),
        GripKind::Vertex { contour, vertex } => format!("vertex {vertex} of contour {contour}"),
        GripKind::Control { segment, point, .. } => {
            format!("control point {} of segment {segment}", point + 1)
        }
        GripKind::Centre => "centre".to_owned(),
        GripKind::Gradient { stroke, end } => {
            let of = if stroke { "the stroke's gradient" } else { "the gradient" };
            format!("{} of {of}", if end == 0 { "beginning" } else { "end" })
        }
        _ => "place".to_owned(),
    }
}

/// The message about a grip and one of the holds at its position, with the places of its numbers in a script.
pub(crate) fn told(
    (ran, script): (&Ran, &Script),
    holds: &Holds,
    ways: &[(usize, Option<Hold>)],
    way: usize,
) -> Option<GripTold> {
    let (grip, hold) = ways.get(way)?;
    let own = holds.grips().get(*grip)?;
    let places = |hold: &Hold| -> Vec<(usize, usize)> {
        hold.numbers.iter().filter_map(|number| place_of(script, *number)).collect()
    };
    let moved = hold.iter().flat_map(|hold| &hold.moved).filter(|moved| *moved != grip);
    // A centre only follows its vertices.
    let others: Vec<&Grip> = moved
        .filter_map(|moved| holds.grips().get(*moved))
        .filter(|other| other.kind != GripKind::Centre)
        .collect();
    let at = |place: Point| ran.told(place).to_array();
    Some(GripTold {
        grip: *grip,
        hold: ways.iter().take(way).filter(|(other, _)| other == grip).count(),
        at: at(own.at),
        what: words_for(own.kind),
        numbers: hold.as_ref().map(places).unwrap_or_default(),
        moved: others.iter().take(MAX_MOVED_SHOWN).map(|grip| at(grip.at)).collect(),
        moved_count: others.len(),
        way,
        ways: ways.iter().filter(|(_, hold)| hold.is_some()).count(),
    })
}

/// Where a number of a script is in its text, as the page counts.
pub(crate) fn place_of(script: &Script, number: usize) -> Option<(usize, usize)> {
    let bytes = script.numbers().get(number)?.bytes.clone();
    let before = |byte: usize| script.source().get(..byte).map(units);
    Some((before(bytes.start)?, before(bytes.end)?))
}
