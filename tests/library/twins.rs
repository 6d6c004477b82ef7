//! Slow, obvious twins of reshapes and combinations: counting cells, walking along, summing formulas from the books.

use std::f64::consts::PI;

use crate::support::{any_path, point};
use chordane::prelude::*;
use proptest::prelude::*;

/// How many cells the squared paper has on each side.
const CELLS: i32 = 10;

/// A set of cells of squared paper, with its outline: a rectangle for each run of cells.
#[derive(Clone, Debug)]
struct Cells(Vec<bool>);

impl Cells {
    fn has(&self, x: i32, y: i32) -> bool {
        let on_paper = (0..CELLS).contains(&x) && (0..CELLS).contains(&y);
        on_paper && self.0.get((y * CELLS + x) as usize).copied().unwrap_or(false)
    }

    fn count(&self) -> usize {
        self.0.iter().filter(|cell| **cell).count()
    }

    /// Each cell as a square of its own, every other one running the other way when `mixed` is set.
    fn squares(&self, mixed: bool) -> Path {
        let each = (0..CELLS * CELLS).filter(|i| self.has(i % CELLS, i / CELLS));
        each.fold(Path::empty(), |path, i| {
            let square = rectangle((f64::from(i % CELLS), f64::from(i / CELLS)), 1.0, 1.0);
            path.and(&if mixed && i % 2 == 0 { square.reversed() } else { square })
        })
    }

    /// The length of the rim: sides between a cell that is in and one that is not.
    fn rim(&self) -> usize {
        let steps = [(1, 0), (0, 1), (-1, 0), (0, -1)];
        let open = |i: i32| {
            let (x, y) = (i % CELLS, i / CELLS);
            steps.iter().filter(|(dx, dy)| self.has(x, y) && !self.has(x + dx, y + dy)).count()
        };
        (0..CELLS * CELLS).map(open).sum()
    }

    fn with(&self, other: &Self, keep: impl Fn(bool, bool) -> bool) -> Self {
        Self(self.0.iter().zip(&other.0).map(|(a, b)| keep(*a, *b)).collect())
    }
}

fn cells() -> impl Strategy<Value = Cells> {
    prop::collection::vec(prop::bool::weighted(0.45), (CELLS * CELLS) as usize).prop_map(Cells)
}

/// A convex polygon: points on an ellipse in order of their angles.
fn convex() -> impl Strategy<Value = Path> {
    (prop::collection::vec(0.0..360.0_f64, 3..9), 5.0..40.0_f64, 5.0..40.0_f64).prop_filter_map(
        "three corners well apart",
        |(mut angles, a, b)| {
            angles.sort_by(f64::total_cmp);
            angles.dedup_by(|x, y| (*x - *y).abs() < 8.0);
            let around = angles.first().zip(angles.last()).is_some_and(|(x, y)| y - x < 350.0);
            (angles.len() >= 3 && around).then(|| {
                Path::closed(angles.iter().map(|angle| {
                    let (sin, cos) = angle.to_radians().sin_cos();
                    pt(a * cos, b * sin)
                }))
            })
        },
    )
}

/// The place at a distance along straight sides, side by side.
fn walked(points: &[Point], distance: f64) -> Point {
    let mut left = distance;
    for pair in points.windows(2) {
        let length = pair[0].distance(pair[1]);
        if left <= length {
            return pair[0].lerp(pair[1], if length > 0.0 { left / length } else { 0.0 });
        }
        left -= length;
    }
    points[points.len() - 1]
}

fn zigzag() -> impl Strategy<Value = Vec<Point>> {
    prop::collection::vec(point(60.0), 2..9).prop_filter("sides that have a length", |points| {
        points.windows(2).all(|pair| pair[0].distance(pair[1]) > 0.5)
    })
}

fn length_of(points: &[Point]) -> f64 {
    points.windows(2).map(|pair| pair[0].distance(pair[1])).sum()
}

proptest! {
    #![proptest_config(crate::support::cases(60))]

    #[test]
    fn combined_cells_are_counted(a in cells(), b in cells(), mixed in any::<bool>()) {
        let (p, q) = (a.squares(mixed), b.squares(false));
        for (made, kept) in [
            (p.union(&q), a.with(&b, |a, b| a || b)),
            (p.intersection(&q), a.with(&b, |a, b| a && b)),
            (p.difference(&q), a.with(&b, |a, b| a && !b)),
            (p.xor(&q), a.with(&b, |a, b| a != b)),
            (p.simplified(), a.clone()),
        ] {
            prop_assert!((made.signed_area() - kept.count() as f64).abs() < 1e-9);
            let rim: f64 = made.contours().iter().map(Contour::length).sum();
            prop_assert!((rim - kept.rim() as f64).abs() < 1e-9, "{} {}", rim, kept.rim());
            for i in 0..CELLS * CELLS {
                let (x, y) = (i % CELLS, i / CELLS);
                let middle = pt(f64::from(x) + 0.5, f64::from(y) + 0.5);
                prop_assert_eq!(made.inside(middle), kept.has(x, y), "{}", middle);
            }
        }
        let all: Vec<Path> = (0..CELLS * CELLS)
            .filter(|i| a.has(i % CELLS, i / CELLS))
            .map(|i| rectangle((f64::from(i % CELLS), f64::from(i / CELLS)), 1.0, 1.0))
            .collect();
        prop_assert!((union_all(&all).signed_area() - a.count() as f64).abs() < 1e-9);
    }

    /// What is no farther from a convex shape than a distance: its area, the rim times the distance, and a disc (J. Steiner,
    /// 1840). With mitres the corners' kites stand in for the disc.
    #[test]
    fn grown_convex_shapes_follow_the_formula(shape in convex(), distance in 0.1..12.0_f64) {
        let (area, rim) = (shape.area().unwrap(), shape.length().unwrap());
        let grown = shape.then(Offset { join: Join::Round, ..Offset::new(distance) });
        let expected = area + rim * distance + PI * distance * distance;
        prop_assert!((grown.area().unwrap() / expected - 1.0).abs() < 1e-9);
        prop_assert!((grown.length().unwrap() - rim - 2.0 * PI * distance).abs() < 1e-7 * rim);
        let corners: Vec<Point> = shape.contours()[0].vertices().collect();
        let n = corners.len();
        let kites: f64 = (0..n).map(|i| {
            let (a, b) = (corners[(i + 1) % n] - corners[i], corners[(i + 2) % n] - corners[(i + 1) % n]);
            distance * distance * (0.5 * a.perp_dot(b).atan2(a.dot(b)).abs()).tan()
        }).sum();
        let mitred = shape.then(Offset { mitre_limit: 1e6, ..Offset::new(distance) });
        prop_assert!((mitred.area().unwrap() / (area + rim * distance + kites) - 1.0).abs() < 1e-9);
        // The ring of the outline lies half a width on either side.
        let ring = shape.then(LineStyle { join: Join::Round, ..LineStyle::new(2.0 * distance) });
        let hole = shape.then(Offset::new(-distance)).area().unwrap();
        prop_assert!((ring.area().unwrap() - (expected - hole)).abs() < 1e-6 * expected);
    }

    #[test]
    fn a_trim_is_walked(points in zigzag(), from in 0.0..1.0_f64, to in 0.0..1.0_f64, looks in 2..20_usize) {
        let line = Path::open(points.iter().copied());
        let length = length_of(&points);
        let (from, to) = (from.min(to), from.max(to));
        let piece = line.then(Trim::new(from, to));
        prop_assert!((piece.length().unwrap() - (to - from) * length).abs() < 1e-6 * length);
        if to - from > 1e-6 {
            let survey = piece.survey().unwrap();
            for i in 0..=looks {
                let along = (to - from) * length * i as f64 / looks as f64;
                let (place, walked) = (survey.station(along).unwrap().point(), walked(&points, from * length + along));
                prop_assert!(place.distance(walked) < 1e-6 * length, "{} {}", place, walked);
            }
        }
    }

    #[test]
    fn dashes_are_walked(points in zigzag(), dash in 2.0..30.0_f64, gap in 2.0..30.0_f64, offset in 0.0..60.0_f64) {
        let length = length_of(&points);
        let dashes = Path::open(points.iter().copied()).then(Dash { offset, ..Dash::new([dash, gap]) });
        // Where the pattern draws, from its first dash that reaches the line.
        let mut at = -(offset % (dash + gap));
        let mut expected = Vec::new();
        while at < length {
            let (from, to) = (at.max(0.0), (at + dash).min(length));
            if to - from > 1e-6 * length {
                expected.push((from, to));
            }
            at += dash + gap;
        }
        prop_assert_eq!(dashes.contours().len(), expected.len());
        for (contour, (from, to)) in dashes.contours().iter().zip(expected) {
            prop_assert!(contour.start().distance(walked(&points, from)) < 1e-6 * length);
            prop_assert!(contour.end().distance(walked(&points, to)) < 1e-6 * length);
            prop_assert!((contour.length() - (to - from)).abs() < 1e-6 * length);
        }
    }

    #[test]
    fn stamps_are_walked(points in zigzag(), spacing in 3.0..30.0_f64, lead_in in 0.0..20.0_f64) {
        let length = length_of(&points);
        let mark = rectangle((-0.5, -0.25), 1.0, 0.5);
        let line = Path::open(points.iter().copied());
        let stamped = line.then(Stamp::new(mark.clone()).every(spacing).lead_in(lead_in).upright());
        let expected: Vec<Point> = (0_u32..)
            .map(|i| lead_in + spacing * f64::from(i))
            .take_while(|at| *at <= length * (1.0 + 1e-12))
            .map(|at| walked(&points, at))
            .collect();
        prop_assert_eq!(stamped.contours().len(), expected.len());
        for (contour, place) in stamped.contours().iter().zip(expected) {
            prop_assert!(contour.bounds().centre().distance(place) < 1e-6 * length);
        }
    }

    #[test]
    fn a_warp_by_a_matrix_is_the_transform(path in any_path(60.0), angle in 0.0..360.0_f64, by in 0.3..3.0_f64) {
        let (sin, cos) = angle.to_radians().sin_cos();
        let image = move |p: Point| pt(by * (p.x * cos - p.y * sin) + 3.0, by * (p.x * sin + p.y * cos) - 2.0);
        let warped = path.then(Warp::new(image));
        let moved = path.scaled(by).rotated(deg(angle)).moved((3.0, -2.0));
        let (a, b) = (warped.length().unwrap(), moved.length().unwrap());
        prop_assert!((a - b).abs() <= 1e-3 * b.max(1.0), "{} {}", a, b);
        for segment in moved.segments() {
            for i in 0..=4 {
                let spot = segment.at(f64::from(i) / 4.0);
                prop_assert!(warped.distance(spot).unwrap() < 0.05);
            }
        }
    }

    #[test]
    fn mirrored_twice_and_spun_round_come_back(path in any_path(40.0), angle in 0.0..180.0_f64, spots in prop::collection::vec(point(40.0), 6)) {
        let mirror = Mirror::new((20.0, 10.0), deg(angle));
        let twice = path.then(mirror).then(mirror);
        for (a, b) in path.segments().zip(twice.segments()) {
            prop_assert!(a.at(0.4).distance(b.at(0.4)) < 1e-9);
        }
        let mirrored = path.then(mirror);
        prop_assert!((mirrored.signed_area() + path.signed_area()).abs() < 1e-6);
        let toward = Point::new(angle.to_radians().cos(), angle.to_radians().sin());
        for spot in spots {
            let arm = spot - pt(20.0, 10.0);
            let image = pt(20.0, 10.0) + toward * (2.0 * arm.dot(toward)) - arm;
            let clear = path.distance(spot).is_ok_and(|away| away > 1e-6);
            if clear {
                prop_assert_eq!(path.inside(spot), mirrored.inside(image));
            }
        }
    }

    #[test]
    fn thin_lines_keep_what_matters(points in zigzag(), tolerance in 0.1..6.0_f64) {
        let line = Path::open(points.iter().copied());
        let thin = line.thinned(tolerance);
        let kept: Vec<Point> = thin.contours()[0].vertices().collect();
        // Ends stay, and what stays is a part of what was there, in order.
        prop_assert_eq!(kept.first(), points.first());
        prop_assert_eq!(kept.last(), points.last());
        let mut rest = points.iter();
        prop_assert!(kept.iter().all(|p| rest.any(|q| p == q)), "{:?}", kept);
        // A finer line first, then a coarser one, keeps no more than the coarse one of the fine one does.
        prop_assert!(line.thinned(0.0).contours()[0].vertex_count() <= points.len());
        prop_assert!(line.thinned(1e6).contours()[0].vertex_count() <= 2.max(kept.len()));
    }
}
