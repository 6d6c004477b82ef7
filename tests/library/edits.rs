//! Vertices changed by tag and by number, and broad nibs, on any path.

use crate::support::any_path;
use chordane::prelude::*;
use proptest::prelude::*;

/// The vertices of all contours, one after the other.
fn vertices(path: &Path) -> Vec<Point> {
    path.contours().iter().flat_map(Contour::vertices).collect()
}

proptest! {
    #![proptest_config(crate::support::cases(150))]

    #[test]
    fn there_and_back_is_where_it_was(path in any_path(60.0), x in -30.0..30.0_f64, y in -30.0..30.0_f64) {
        let count = path.contours()[0].vertex_count();
        let tagged = path.tagged("some", (0..count).step_by(2));
        let moved = tagged.shifted("some", (x, y));
        let back = moved.shifted("some", (-x, -y));
        for (a, b) in vertices(&back).into_iter().zip(vertices(&path)) {
            prop_assert!(a.distance(b) < 1e-12);
        }
        // Only those that are tagged have moved, and all by the same step; the seam goes along.
        let first = &path.contours()[0];
        let home = first.is_closed() && first.start() == first.end();
        for (i, (a, b)) in vertices(&moved).into_iter().zip(vertices(&path)).enumerate() {
            let seam = home && i == count - 1;
            let wanted = if i < count && (i % 2 == 0 || seam) { pt(x, y) } else { Point::ZERO };
            prop_assert!((a - b - wanted).length() < 1e-12, "{} of {}", i, count);
        }
        // The same by number, one after the other.
        let one_by_one = (0..count).step_by(2).fold(path.clone(), |path, i| {
            let seam = home && i == count - 1;
            let here = path.contours()[0].vertices().nth(i).unwrap();
            if seam { path } else { path.replaced(i, here + pt(x, y)) }
        });
        for (a, b) in vertices(&one_by_one).into_iter().zip(vertices(&moved)) {
            prop_assert!(a.distance(b) < 1e-9);
        }
    }

    #[test]
    fn a_vertex_put_in_is_there_and_gone_when_taken_out(path in any_path(60.0), spot in crate::support::point(60.0), which in 0usize..9) {
        let count = path.contours()[0].vertex_count();
        let at = which % (count + 1);
        let wider = path.inserted(at, spot);
        prop_assert_eq!(wider.contours()[0].vertex_count(), count + 1);
        prop_assert!(wider.contours()[0].vertices().nth(at).unwrap().distance(spot) < 1e-9);
        let back = wider.removed(at);
        prop_assert_eq!(back.contours()[0].vertex_count(), count);
        for (i, (a, b)) in vertices(&back).into_iter().zip(vertices(&path)).enumerate() {
            // A contour that came home by a curve begins at the new vertex while it is there.
            prop_assert!(at == 0 || a.distance(b) < 1e-9, "{}: {} and {}", i, a, b);
        }
        prop_assert!(path.removed(which).sound().is_ok() == (which < count));
    }

    /// A round nib is a round pen.
    #[test]
    fn a_nib_as_wide_as_high_is_a_plain_stroke(path in any_path(60.0), width in 0.5..9.0_f64) {
        let nib = Nib { cap: Cap::Round, join: Join::Round, ..Nib::new(width, width) };
        let (nibbed, outlined) =
            (path.nibbed(&nib, 0.05), path.stroke_chords(&LineStyle { cap: Cap::Round, join: Join::Round, ..LineStyle::new(width) }, 0.05));
        // Chords may end a little elsewhere, within the tolerance.
        let (area, rim) = (outlined.area().unwrap(), 2.0 * path.length().unwrap() + 4.0 * width);
        prop_assert!((nibbed.area().unwrap() - area).abs() < 0.1 * rim + 1e-6);
    }
}
