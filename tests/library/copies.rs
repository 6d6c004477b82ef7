//! Copies, clips and woven rings, by their pixels.

use chordane::prelude::*;
use chordane::sheet::Node;

fn page() -> Sheet {
    sheet(200.0, 200.0).centred().ground("white")
}

fn picture(node: impl Into<Node>) -> Pixels {
    page().add(node).pixels().unwrap()
}

#[test]
fn a_clip_shows_what_lies_within_it() {
    let disc = circle((0.0, 0.0), 60.0);
    let square = rectangle((-80.0, -80.0), 160.0, 160.0).fill("teal").stroke("black", 9.0);
    let clipped = picture(group().add(square).clipped(disc.clone()));
    let plain = picture(disc.clone().fill("teal"));
    // The same pixels as the disc itself, up to the rounding of two layers.
    for (a, b) in clipped.as_slice().iter().zip(plain.as_slice()) {
        assert!(a.iter().zip(b).all(|(a, b)| a.abs_diff(*b) <= 2), "{a:?} {b:?}");
    }
    let nothing = picture(group().add(disc.clone().fill("teal")).clipped(Path::empty()));
    assert!(nothing.as_slice().iter().all(|pixel| *pixel == [255; 4]));
    let faulty = group().add(disc.fill("teal")).clipped(circle((0.0, 0.0), -1.0));
    assert_eq!(page().add(faulty).svg().unwrap_err().call(), "circle");
}

#[test]
fn clips_move_with_their_group_and_nest() {
    let dot = |x: f64| circle((x, 0.0), 30.0);
    let inner = group().add(dot(0.0).fill("red")).clipped(dot(20.0)).opacity(0.5).moved((10.0, 0.0));
    let both = picture(group().add(inner).clipped(dot(0.0)).rotated(deg(90.0)));
    // Within all three: red at half opacity; outside any of them nothing.
    assert_eq!(both.at(100, 115), Some([255, 128, 128, 255]));
    assert_eq!(both.at(100, 135), Some([255; 4]));
    assert_eq!(both.at(100, 95), Some([255; 4]));
}

/// What shows at a place of a woven ring: of the things there, the one farthest on round the ring.
#[test]
fn woven_rings_have_no_seam() {
    for n in [3, 4, 5, 8, 9, 16] {
        let radius = if n < 5 { 38.0 } else { 25.0 };
        let at = |i: usize| polar(turns(i as f64 / n as f64) + deg(17.0), 55.0);
        let colour = |i: usize| format!("rgb({} {} 60)", 40 + 12 * i, 220 - 12 * i);
        let discs: Vec<Item> = (0..n).map(|i| circle(at(i), radius).fill(colour(i).as_str())).collect();
        let shown = picture(woven(discs));
        let mut looked = 0;
        for y in (4..200).step_by(3) {
            for x in (4..200).step_by(3) {
                let p = pt(f64::from(x) - 99.5, f64::from(y) - 99.5);
                let depth = |i: usize| radius - p.distance(at(i));
                // Not at rims, where colours mix, nor where so many meet that they go all the way round.
                let here: Vec<usize> = (0..n).filter(|i| depth(*i) > 0.0).collect();
                if (0..n).any(|i| depth(i).abs() < 1.0) || here.is_empty() || here.len() > 2 {
                    continue;
                }
                let top = match here.as_slice() {
                    [a, b] if *a == 0 && *b == n - 1 => *a,
                    [.., b] => *b,
                    [] => continue,
                };
                let want = [40 + 12 * top as u8, 220 - 12 * top as u8, 60, 255];
                assert_eq!(shown.at(x, y), Some(want), "{n} discs at {p}: {here:?}");
                looked += 1;
            }
        }
        assert!(looked > 300);
    }
    assert_eq!(woven([circle((0.0, 0.0), 5.0).fill("red")]).nodes().len(), 1);
    assert_eq!(woven(Vec::<Node>::new()).nodes().len(), 0);
}

#[test]
fn rings_of_copies_stand_evenly() {
    let vents = ring_of(circle((0.0, 0.0), 4.0).fill("teal"), 12, 80.0);
    let centres: Vec<Point> = vents.nodes().iter().map(|node| node.bounds().unwrap().centre()).collect();
    for (i, centre) in centres.iter().enumerate() {
        assert!((*centre - polar(deg(30.0 * i as f64 - 90.0), 80.0)).length() < 1e-9);
    }
    assert!(ring_of(circle((0.0, 0.0), 4.0), 0, 80.0).nodes().is_empty());
    let too_many = ring_of(circle((0.0, 0.0), 4.0), usize::MAX, 80.0);
    assert!(page().add(too_many).svg().is_err());
    assert_eq!(copies_at(circle((0.0, 0.0), 1.0), [(1.0, 2.0), (3.0, 4.0)]).nodes().len(), 2);
}

#[test]
fn steps_round_a_turn_are_even() {
    for n in [1, 2, 3, 7, 360, 10_007] {
        let angles: Vec<f64> = around(n).map(Angle::turns).collect();
        for (i, angle) in angles.iter().enumerate() {
            assert!((angle - i as f64 / n as f64).abs() < 1e-12);
        }
        assert_eq!(angles.len(), n);
    }
}
