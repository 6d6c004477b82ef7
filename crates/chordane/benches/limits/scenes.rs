//! The pairs of scenes and scores.

use std::hint::black_box;

use chordane::prelude::*;
use chordane::sheet::Node;
use chordane_score::{Limits, Runner, Settings};

use crate::inputs::Random;
use crate::{Outcome, compare};

/// A scene of 100,000 items in 1,000 groups, against cloning their paths and multiplying their transforms in a bare loop.
pub(crate) fn scene() -> Outcome {
    let mut random = Random::new(37);
    let mut groups = Vec::new();
    for _ in 0..1000 {
        let item = |at: Point| polygon(at, 5, 4.0).fill("teal").moved((1.0, 2.0));
        let items: Vec<Item> = (0..100).map(|_| item(random.point(800.0))).collect();
        groups.push(group().add_all(items).rotated(deg(random.between(0.0, 360.0))));
    }
    let page = sheet(800.0, 800.0).add_all(groups);
    let items: Vec<(Affine, Vec<Item>)> = page
        .nodes()
        .iter()
        .filter_map(|node| match node {
            Node::Group(group) => {
                let items = group.nodes().iter().filter_map(|node| match node {
                    Node::Item(item) => Some((**item).clone()),
                    _ => None,
                });
                Some((group.placement().transform, items.collect()))
            }
            _ => None,
        })
        .collect();
    compare(
        "scene",
        0.8,
        21,
        || {
            black_box(black_box(&page).scene().unwrap());
        },
        || {
            let mut placed = Vec::with_capacity(100_000);
            for (outer, items) in black_box(&items) {
                placed.extend(
                    items.iter().map(|item| (item.path().clone(), *outer * item.placement().transform)),
                );
            }
            black_box(placed);
        },
    )
}

/// A sail with a hem of loops, vents and a tail, as a score and in Rust.
const SAIL: &str = r##"
    let sag = knob("sag", 0.3, 0, 1);
    let sail = through([[0, -150], corner([110, -40]), [30, 40 + 60 * sag], corner([0, 170]), [-30, 40 + 60 * sag], corner([-110, -40])]).close();
    let page = sheet(400, 400).centred().ground("#f4efe6");
    page.add(sail.fill("#c8553d").stroke("#20303c", 3));
    page.add(sail.offset(-12).dashed([9, 6]).stroke("#f4efe6", 2));
    for i in 0..40 {
        let a = turns(i / 40);
        page.add(star(polar(a, 150 + 20 * sin(a * 5)), 5, 6 + 4 * sag, 3).rotated(a).fill("#2f6f73"));
    }
    for x in between(deg(-60), deg(60), 12) {
        page.add(start([0, 0]).ray(x, 60).arc_about([0, 0], deg(8)).close().moved([0, 20 * sag]).fill("#d9a441"));
    }
    page
"##;

fn sail(sag: f64) -> Sheet {
    let low = 40.0 + 60.0 * sag;
    let sail = through([
        soft((0.0, -150.0)),
        corner((110.0, -40.0)),
        soft((30.0, low)),
        corner((0.0, 170.0)),
        soft((-30.0, low)),
        corner((-110.0, -40.0)),
    ])
    .close();
    let mut page = sheet(400.0, 400.0).centred().ground("#f4efe6");
    page = page.add(sail.clone().fill("#c8553d").stroke("#20303c", 3.0));
    page = page.add(sail.offset(-12.0).dashed([9.0, 6.0]).stroke("#f4efe6", 2.0));
    for i in 0..40 {
        let a = turns(f64::from(i) / 40.0);
        let at = polar(a, 150.0 + 20.0 * (a * 5.0).sin());
        page = page.add(star(at, 5, 6.0 + 4.0 * sag, 3.0).rotated(a).fill("#2f6f73"));
    }
    for x in between(deg(-60.0), deg(60.0), 12) {
        let blade = start((0.0, 0.0)).ray(x, 60.0).arc_about((0.0, 0.0), deg(8.0)).close();
        page = page.add(blade.moved((0.0, 20.0 * sag)).fill("#d9a441"));
    }
    page
}

/// A compiled score run again with one knob changed, against the same words called from Rust.
pub(crate) fn rerun() -> Outcome {
    let runner = Runner::read("sail.chord", SAIL, Limits::default()).unwrap();
    let asked = |sag: f64| runner.run(&Settings::new().set("sag", sag)).into_sheet().unwrap();
    assert_eq!(asked(0.5).svg().unwrap(), sail(0.5).svg().unwrap());
    let often = |draw: &dyn Fn(f64) -> Sheet| {
        for i in 0..50 {
            black_box(draw(f64::from(i) / 50.0));
        }
    };
    compare("rerun", 2.5, 21, || often(&asked), || often(&sail))
}
