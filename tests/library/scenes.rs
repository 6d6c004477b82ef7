//! A sheet in one pass: what is placed where, what lies under a spot, other paths on the same sheet, and names in files.

use std::collections::HashSet;

use chordane::prelude::*;
use chordane::scene::{Address, Command, HitPart};
use proptest::prelude::*;

use crate::support::{any_path, point};

/// A sheet of nested groups, with fills, strokes, dashes, clips and a fade.
fn loft() -> Sheet {
    let sail = polygon((0.0, 0.0), 5, 14.0).fill("teal").stroke("black", 2.0).named("sail").at_line(3);
    let tail = Path::open([(0.0, 14.0), (6.0, 26.0), (-2.0, 36.0)]).stroke("gold", 3.0).dash([4.0, 3.0]);
    let kite = group().add(sail).add(group().add(tail).scaled(1.1)).named("kite");
    let window = group()
        .add(rectangle((0.0, 0.0), 30.0, 30.0).fill("red"))
        .clipped(circle((15.0, 15.0), 12.0))
        .moved((40.0, 30.0));
    sheet(80.0, 64.0).add(kite.rotated(deg(10.0)).moved((22.0, 20.0)).opacity(0.8)).add(window)
}

#[test]
fn items_stand_where_their_groups_put_them() {
    let page = loft();
    let scene = page.scene().unwrap();
    let [sail, tail, cloth] = scene.items() else { panic!("three items") };
    assert_eq!((sail.item.name(), sail.line(), sail.number), (Some("sail"), Some(3), 0));
    assert_eq!((sail.opacity, cloth.opacity, cloth.clipped), (0.8, 1.0, true));
    assert_eq!((tail.layer, scene.layers()[1].parent, sail.layer), (Some(1), Some(0), Some(0)));
    // Where it stands is what the transforms of all its groups say, one after the other.
    let by_hand = tail.item.path().scaled(1.1).rotated(deg(10.0)).moved((22.0, 20.0));
    let apart = tail.path().bounds().unwrap().min - by_hand.bounds().unwrap().min;
    assert!(apart.length() < 1e-9);
    assert_eq!(scene.clips(cloth).count(), 1);
    assert_eq!(
        scene.commands(),
        [
            Command::Push(0),
            Command::Draw(0),
            Command::Push(1),
            Command::Draw(1),
            Command::Pop(1),
            Command::Pop(0),
            Command::Push(2),
            Command::Draw(2),
            Command::Push(3),
            Command::Pop(3),
            Command::Pop(2)
        ]
    );
}

#[test]
fn a_fault_comes_with_the_name_and_the_line_of_its_item() {
    let bad = circle((0.0, 0.0), f64::NAN).fill("teal").named("vent").at_line(7);
    let page = sheet(9.0, 9.0).add(group().add(bad));
    let fault = page.svg().unwrap_err();
    assert_eq!((fault.item(), fault.line(), fault.call()), (Some("vent"), Some(7), "circle"));
    let told = "\"vent\", line 7: `circle`: the radius NaN is not finite; give a finite number";
    assert_eq!(fault.to_string(), told);
    // An error does not say again what its source says.
    let error = page.pixels().unwrap_err();
    assert_eq!(error.to_string(), told);
    assert!(std::error::Error::source(&error).is_none());
    let far = sheet(9.0, 9.0).add(circle((1e12, 0.0), 1.0).fill("red").named("lost"));
    assert!(far.pixels().unwrap_err().to_string().starts_with("\"lost\": `draw`: a vertex lies at "));
    // Open and closed lists say which vertex it is.
    let list = Path::closed([(0.0, 0.0), (1.0, f64::INFINITY)]);
    assert_eq!(list.sound().unwrap_err().vertex(), Some(1));
}

proptest! {
    #![proptest_config(crate::support::cases(40))]

    /// The slow way: draw every item alone in its place, and see whether the pixel round the spot is painted.
    #[test]
    fn what_lies_under_a_spot_is_what_is_painted_there(
        paths in prop::collection::vec(any_path(24.0), 1..4),
        spot in point(24.0), width in 0.5..5.0_f64, turn in 0.0..360.0_f64, dashed in any::<bool>(),
    ) {
        let dash = if dashed { vec![3.0, 2.0] } else { Vec::new() };
        let item = |path: &Path| path.clone().fill("teal").stroke("black", width).join("round").dash(dash.clone());
        let lift = |item: Item| group().add(item).clipped(circle((12.0, 12.0), 11.0)).rotated_about((12.0, 12.0), deg(turn));
        let groups: Vec<Group> = paths.iter().map(|path| lift(item(path))).collect();
        let page = sheet(24.0, 24.0).add_all(groups.iter().cloned());
        let hits: Vec<usize> = page.items_at(spot).map(|hit| hit.placed.number).collect();
        prop_assert!(hits.is_sorted_by(|a, b| a > b), "topmost first: {hits:?}");
        let scene = page.scene().unwrap();
        let found: Vec<usize> =
            scene.index().items_at(spot, 0.0).iter().map(|hit| hit.placed.number).collect();
        prop_assert_eq!(&hits, &found);
        prop_assert_eq!(page.item_at(spot).map(|hit| hit.placed.number), hits.first().copied());
        for (number, group) in groups.into_iter().enumerate() {
            // A very small sheet round the spot, on a very fine grid: an edge through it leaves it undecided.
            let around = sheet(0.01, 0.01).add(group.moved(-spot + pt(0.005, 0.005)));
            let seen = around.pixels_with(&WriteOptions::sized(5, 5)).unwrap();
            let covered = seen.as_slice().iter().filter(|pixel| pixel[3] > 0).count();
            if covered == 0 || seen.as_slice().iter().all(|pixel| pixel[3] == 255) {
                prop_assert_eq!(hits.contains(&number), covered > 0, "item {} at {:?}", number, spot);
            }
        }
    }
}

#[test]
fn hits_say_what_was_hit_and_where() {
    let page = sheet(90.0, 90.0).add(rectangle((10.0, 10.0), 40.0, 30.0).fill("teal").stroke("black", 4.0));
    let hit = page.item_at((30.0, 12.5)).unwrap();
    assert_eq!(hit.part, HitPart::Fill);
    assert_eq!((hit.place.contour, hit.place.segment, hit.point), (0, 0, pt(30.0, 10.0)));
    assert_eq!(hit.address(), Address { item: 0, place: Some(hit.place) });
    assert_eq!(page.item_at((30.0, 11.5)).unwrap().part, HitPart::Stroke);
    // A mitre's tip is painted, and beside it nothing is.
    assert!(page.item_at((8.1, 8.1)).is_some() && page.item_at((7.9, 7.9)).is_none());
    // What is not painted is found within reach alone.
    let bare = sheet(90.0, 90.0).add(circle((40.0, 40.0), 10.0));
    assert!(bare.item_at((50.0, 40.0)).is_none());
    assert_eq!(bare.items_at((51.0, 40.0)).reach(2.0).next().unwrap().part, HitPart::Near);
    assert!(bare.items_at((51.0, 40.0)).reach(f64::NAN).next().is_none());
    // Squashed flat, nothing is left to hit; nor is there anything at no place.
    let flat = sheet(90.0, 90.0).add(circle((0.0, 0.0), 10.0).fill("red").scaled_by((1.0, 0.0)));
    assert!(flat.item_at((0.0, 0.0)).is_none() && page.item_at((f64::NAN, 0.0)).is_none());
}

#[test]
fn other_paths_on_the_same_sheet_keep_all_else() {
    let page = loft();
    let same = page.map_paths(|placed| placed.item.path().clone());
    assert_eq!(same, page);
    let moved = page.map_paths(|placed| placed.item.path().moved((1.0, 0.0)));
    assert_ne!(moved, page);
    assert_eq!(moved.scene().unwrap().commands(), page.scene().unwrap().commands());
    let names = |sheet: &Sheet| {
        sheet.items().map(|placed| (placed.item.name().map(str::to_owned), placed.line())).collect::<Vec<_>>()
    };
    assert_eq!(names(&moved), names(&page));
}

/// Ids are unique in a file, also those of copies and of clips, and none is taken from a name that was given.
#[test]
fn ids_in_files_are_unique() {
    let vent = circle((5.0, 5.0), 2.0).fill("teal").named("vent");
    let clipped = |name: &str| group().add(vent.clone()).clipped(circle((5.0, 5.0), 1.0)).named(name);
    let page = sheet(90.0, 90.0)
        .add(vent.clone())
        .add(ring_of(vent.clone(), 3, 20.0))
        .add(circle((0.0, 0.0), 1.0).fill("red").named("vent-2"))
        .add(clipped("clip-1"))
        .add(clipped("clip-2"))
        .add_all((0..10_000).map(|_| vent.clone()));
    let svg = page.svg().unwrap();
    let ids: Vec<&str> = svg.split(" id=\"").skip(1).filter_map(|rest| rest.split('"').next()).collect();
    assert_eq!(ids.len(), 10_011);
    assert_eq!(ids.iter().collect::<HashSet<_>>().len(), ids.len());
    assert_eq!((ids[0], ids[1]), ("vent", "vent-3"), "vent-2 was given to another");
    for id in ["clip-1", "clip-2", "vent-2"] {
        assert!(ids.contains(&id), "what was given stays as it is: {id}");
    }
    assert!(svg.contains("clip-path=\"url(#clip-3)\"") && svg.contains("clip-path=\"url(#clip-4)\""));
}

#[test]
fn a_thousand_groups_inside_one_another_are_a_fault() {
    let deep = (0..1000).fold(group(), |inner, _| group().add(inner));
    let told = sheet(9.0, 9.0).add(deep).sound().unwrap_err().to_string();
    assert_eq!(told, "`add`: 201 groups inside one another are too many; give at most 200");
    let allowed = (0..199)
        .fold(group().add(circle((4.0, 4.0), 3.0).fill("red")), |inner, _| group().add(inner).opacity(0.999));
    let page = sheet(9.0, 9.0).add(allowed);
    assert!(page.svg().unwrap().matches("<g").count() == 200);
    assert!(page.pixels().unwrap().at(4, 4).unwrap()[0] > 200);
    assert_eq!(page.item_at((4.0, 4.0)).unwrap().placed.number, 0);
}

/// A layer is only kept where it is drawn on; a mask that reaches farther than what it cuts paints nothing itself.
#[test]
fn layers_reach_as_far_as_what_is_drawn_on_them() {
    let small = group().add(circle((10.0, 100.0), 5.0).fill("red")).opacity(0.5);
    let cut =
        group().add(circle((60.0, 100.0), 5.0).fill("red")).clipped(rectangle((0.0, 0.0), 200.0, 300.0));
    let nothing = group().clipped(rectangle((0.0, 0.0), 200.0, 300.0)).opacity(0.5);
    let picture = sheet(200.0, 300.0).add(small).add(cut).add(nothing).pixels().unwrap();
    assert_eq!(picture.at(10, 100), Some([255, 0, 0, 128]));
    assert_eq!(picture.at(60, 100), Some([255, 0, 0, 255]));
    let painted = picture.as_slice().iter().filter(|pixel| pixel[3] > 0).count();
    assert!((120..220).contains(&painted), "{painted}");
}
