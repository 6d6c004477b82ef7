//! What a path paints under its fill rule: its area, each spot once, and the middle of it.
//!
//! Area and centre follow from the rim of what is painted alone (Green's theorem). Where no contours meet, each is part of it
//! if one of the winding numbers on its two sides is painted and the other is not; where they do, the rim is that of the
//! arrangement.

use super::rims::{arranged, scaled_to_numbers};
use super::sources::Part;
use crate::ground::{Fault, FaultKind, exhausted, limited};
use crate::measure::{
    BoxTree, Crossing, CrossingKind, Place, doubled_area, self_crossings, sixteen_places, straight_stops,
    tolerance_of, winding_in,
};
use crate::number::Point;
use crate::path::{Contour, ContourBuilder, Path, Segment};

/// Distance from an edge at which winding numbers are probed, as a fraction of the path's extent; thinner regions may be missed.
const PROBE_DISTANCE: f64 = 1e-8;

/// Crossings beyond this are refused.
const MAX_CROSSINGS: usize = 1_000_000;

/// What a path paints.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Painted {
    pub(crate) area: f64,
    /// The middle, where anything is painted.
    pub(crate) centroid: Option<Point>,
}

impl Path {
    /// The area that is painted under the fill rule, each spot once; open contours count as if they were closed.
    ///
    /// Curves are exact: 1e-9 of the area or better where no contours cross, and otherwise within 1e-8 of the path's
    /// length times its extent (regions thinner than 1e-8 of the extent may be missed). Cost: n log n, and the number of
    /// crossings.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let (left, right) = (rectangle((0.0, 0.0), 10.0, 10.0), rectangle((6.0, 0.0), 10.0, 10.0));
    /// assert!((left.and(&right).area()? - 160.0).abs() < 1e-9);
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The path's first fault, or more than a million crossings.
    pub fn area(&self) -> Result<f64, Fault> {
        limited("area", || Filling::of(self, "area").map(|filling| filling.painted().area))?
    }

    /// The middle of what is painted: where a sheet cut to this shape would balance. `None` where nothing is.
    ///
    /// Accuracy and cost as of [`Path::area`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = start((0.0, 0.0)).line((30.0, 0.0)).line((0.0, 60.0)).close();
    /// assert!(sail.centroid()?.unwrap().distance(pt(10.0, 20.0)) < 1e-12);
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The path's first fault, or more than a million crossings.
    pub fn centroid(&self) -> Result<Option<Point>, Fault> {
        limited("centroid", || Filling::of(self, "centroid").map(|filling| filling.painted().centroid))?
    }
}

/// A path as filling takes it: every contour closed, and where they meet themselves and one another, sought once.
pub(crate) struct Filling {
    closed: Path,
    crossings: Vec<Crossing>,
}

impl Filling {
    pub(crate) fn of(path: &Path, call: &'static str) -> Result<Self, Fault> {
        path.sound()?;
        let closed = plain(&all_closed(path));
        let (crossings, whole) = self_crossings(&closed, MAX_CROSSINGS);
        if !whole {
            let kind =
                FaultKind::TooMany { what: "crossings", count: MAX_CROSSINGS + 1, limit: MAX_CROSSINGS };
            return Err(Fault::of(call, kind));
        }
        Ok(Self { closed, crossings })
    }

    pub(crate) fn painted(&self) -> Painted {
        if !self.crossings.is_empty()
            && let Some(rim) = rim_of(&self.closed)
        {
            return enclosed(&rim);
        }
        painted_between(&self.closed, &self.crossings)
    }

    /// Where a contour crosses itself, in order along it.
    pub(crate) fn own_crossings(&self, contour: usize) -> impl Iterator<Item = &Crossing> {
        // They stand in order along the path.
        let begin = self.crossings.partition_point(|c| c.first.contour < contour);
        let own = self.crossings.get(begin..).unwrap_or_default().iter();
        own.take_while(move |c| c.first.contour == contour).filter(move |c| c.second.contour == contour)
    }

    /// The winding numbers on both sides of the runs of a contour, as if it were alone.
    pub(crate) fn own_windings(&self, contour: usize) -> Vec<[i32; 2]> {
        let alone = Path::from_contours(self.closed.contours().get(contour).cloned());
        let crossings = self.own_crossings(contour).map(|crossing| {
            let mut own = *crossing;
            (own.first.contour, own.second.contour) = (0, 0);
            own
        });
        let crossings: Vec<Crossing> = crossings.collect();
        runs_with_windings(&alone, &crossings).into_iter().map(|(_, windings)| windings).collect()
    }
}

/// The path with every contour closed, as filling takes it.
pub(crate) fn all_closed(path: &Path) -> Path {
    let contours = path.contours().iter().map(|contour| {
        if contour.is_closed() {
            return contour.clone();
        }
        ContourBuilder::from_parts(contour.verbs().to_vec(), contour.points().to_vec()).finish(true)
    });
    Path::from_contours(contours).with_fill_rule(path.fill_rule())
}

/// The path with straight sides for what only looks like a curve, so that what runs along something else is seen to.
fn plain(path: &Path) -> Path {
    let off = path.bounds().map_or(0.0, |bounds| 0.25 * tolerance_of(&bounds));
    let is_straight = |segment: Segment| straight_stops(&segment, off).is_some();
    let contours = path.contours().iter().map(|contour| {
        if exhausted(2 * contour.vertex_count()) || !contour.segments().any(is_straight) {
            return contour.clone();
        }
        let mut builder = ContourBuilder::new(contour.start());
        for segment in contour.drawn_segments() {
            match straight_stops(&segment, off) {
                Some(stops) => stops.for_each(|stop| builder.line(stop)),
                None => builder.segment(&segment),
            }
        }
        builder.finish(true)
    });
    Path::from_contours(contours).with_fill_rule(path.fill_rule())
}

/// The runs of a path of closed contours whose crossings are known, each with the winding numbers to the right and to
/// the left of travel.
fn runs_with_windings(path: &Path, crossings: &[Crossing]) -> Vec<(Vec<Segment>, [i32; 2])> {
    let segments: Vec<Segment> = path.segments().collect();
    let Some(extent) = path.bounds() else { return Vec::new() };
    let tree = BoxTree::new(segments.iter().map(Segment::bounds));
    let aside = extent.size().max_element() * PROBE_DISTANCE;
    let with_windings = |run: Vec<Segment>| {
        let (spot, right) = probe(&run)?;
        let windings = [right, -right].map(|way| winding_in(&segments, &tree, spot + way * aside));
        Some((run, windings))
    };
    runs(path, crossings).into_iter().filter_map(with_windings).collect()
}

/// The rim of what a path of closed contours paints, each contour with what it encloses on its right. `None` where too much meets.
fn rim_of(closed: &Path) -> Option<Path> {
    if let Some((scaled, factor)) = scaled_to_numbers(&[closed], 0.0) {
        return rim_of(scaled.first()?).map(|rim| rim.scaled(1.0 / factor));
    }
    let part = |contour| Part { contour, operand: 0, weight: 1 };
    let parts: Vec<Part<'_>> = closed.contours().iter().map(part).collect();
    let rule = closed.fill_rule();
    arranged(&parts, &|[winding, _]| rule.encloses(winding)).map(Path::from_contours)
}

/// What a rim encloses.
fn enclosed(rim: &Path) -> Painted {
    let whole = |contour: &Contour| (contour.segments().collect(), 1.0);
    summed(rim, rim.contours().iter().map(whole))
}

/// What a path of closed contours paints, when its crossings are known.
fn painted_between(path: &Path, crossings: &[Crossing]) -> Painted {
    let rule = path.fill_rule();
    let part_of_rim = |(run, windings): (Vec<Segment>, [i32; 2])| match windings.map(|w| rule.encloses(w)) {
        [true, false] => Some((run, 1.0)),
        [false, true] => Some((run, -1.0)),
        _ => None,
    };
    summed(path, runs_with_windings(path, crossings).into_iter().filter_map(part_of_rim))
}

/// Area and centre of what runs go round: 1 with it on the right, -1 with it on the left.
fn summed(path: &Path, runs: impl Iterator<Item = (Vec<Segment>, f64)>) -> Painted {
    let Some(extent) = path.bounds() else { return Painted { area: 0.0, centroid: None } };
    let origin = extent.centre();
    let (mut doubled, mut moments) = (0.0, Point::ZERO);
    for (run, sign) in runs {
        for segment in &run {
            doubled += sign * doubled_area(segment, origin);
            moments += sign * first_moments(segment, origin);
        }
    }
    let area = (0.5 * doubled).max(0.0);
    // Rounding can leave a little where all is flat.
    let anything = area > extent.size().length_squared() * 1e-15;
    Painted { area, centroid: anything.then(|| origin + moments / area) }
}

/// The runs of the contours between the places where they meet anything; stretches that several share come once.
fn runs(path: &Path, crossings: &[Crossing]) -> Vec<Vec<Segment>> {
    let mut cuts: Vec<Vec<(usize, f64)>> = vec![Vec::new(); path.contours().len()];
    let mut twice: Vec<Vec<(usize, f64, f64)>> = vec![Vec::new(); path.contours().len()];
    let mut cut = |place: &Place| {
        if let Some(list) = cuts.get_mut(place.contour) {
            list.push((place.segment, place.parameter));
        }
    };
    for crossing in crossings {
        if exhausted(5) {
            break;
        }
        cut(&crossing.first);
        cut(&crossing.second);
        if let CrossingKind::Along { first, second, .. } = &crossing.kind {
            cut(first);
            cut(second);
            let (from, to) = (crossing.second.parameter, second.parameter);
            if let Some(list) = twice.get_mut(second.contour) {
                list.push((second.segment, from.min(to), from.max(to)));
            }
        }
    }
    let mut runs = Vec::new();
    for ((contour, mut cuts), twice) in path.contours().iter().zip(cuts).zip(twice) {
        cuts.sort_by(|a, b| a.0.cmp(&b.0).then(a.1.total_cmp(&b.1)));
        cuts.dedup();
        let mut cuts = cuts.into_iter().peekable();
        let mut run: Vec<Segment> = Vec::new();
        for (number, segment) in contour.segments().enumerate() {
            let (mut rest, mut begin, mut cut_at_end) = (segment, 0.0, false);
            let drawn_before = |from: f64, to: f64| {
                let middle = from.midpoint(to);
                twice.iter().any(|(n, low, high)| *n == number && middle > *low && middle < *high)
            };
            while let Some((_, at)) = cuts.next_if(|(n, _)| *n == number) {
                if at > begin && at < 1.0 {
                    let (piece, behind) = rest.split((at - begin) / (1.0 - begin));
                    if !drawn_before(begin, at) {
                        run.push(piece);
                    }
                    (rest, begin) = (behind, at);
                }
                cut_at_end = at >= 1.0;
                if at < 1.0 && !run.is_empty() {
                    runs.push(std::mem::take(&mut run));
                }
            }
            if !drawn_before(begin, 1.0) {
                run.push(rest);
            }
            if cut_at_end && !run.is_empty() {
                runs.push(std::mem::take(&mut run));
            }
        }
        runs.extend((!run.is_empty()).then_some(run));
    }
    runs
}

/// A spot in the middle of the longest segment of a run, and the direction to the right of travel there.
fn probe(run: &[Segment]) -> Option<(Point, Point)> {
    let size =
        |segment: &Segment| segment.at(0.5).distance(segment.from()) + segment.at(0.5).distance(segment.to());
    let longest = run.iter().max_by(|a, b| size(a).total_cmp(&size(b)))?;
    // A curve may stand still in its middle, or turn round there so sharply that its other half is right beside it: then
    // where it runs fast, which is far from there.
    let speed = |t: f64| longest.velocity(t).length();
    let fastest = [0.5, 0.2, 0.8].into_iter().max_by(|a, b| speed(*a).total_cmp(&speed(*b)))?;
    let t = if speed(0.5) * 3.0 >= speed(fastest) { 0.5 } else { fastest };
    Some((longest.at(t), longest.velocity(t).normalize_or_zero().perp()))
}

/// The integrals of x^2 dy / 2 and -y^2 dx / 2 along a segment: exact for polynomials, and to the last digits for arcs.
fn first_moments(segment: &Segment, origin: Point) -> Point {
    let pieces = match segment {
        Segment::Arc(arc) => {
            arc.centred().map_or(1.0, |whole| (whole.sweep.degrees().abs() / 90.0).ceil().max(1.0))
        }
        _ => 1.0,
    };
    let (mut sum, mut i) = (Point::ZERO, 0.0);
    while i < pieces {
        let moment = |t: f64| {
            let (p, v) = (segment.at(t) - origin, segment.velocity(t));
            Point::new(p.x * p.x * v.y, -p.y * p.y * v.x) * 0.5
        };
        sum += sixteen_places((i / pieces, (i + 1.0) / pieces))
            .map(|(t, weight)| moment(t) * weight)
            .sum::<Point>();
        i += 1.0;
    }
    sum
}

#[cfg(test)]
mod tests {
    use crate::prelude::*;
    use std::f64::consts::PI;

    fn area(path: &Path) -> f64 {
        path.area().unwrap()
    }

    #[test]
    fn each_spot_counts_once() {
        let (a, b) = (circle((0.0, 0.0), 10.0), circle((10.0, 0.0), 10.0));
        // The lens of two circles through one another's centres.
        let lens = 100.0 * (2.0 * PI / 3.0 - 3.0_f64.sqrt() / 2.0);
        let both = a.clone().and(&b);
        assert!((area(&both) - (200.0 * PI - lens)).abs() < 1e-8);
        assert!(
            (area(&both.clone().with_fill_rule(FillRule::EvenOdd)) - (200.0 * PI - 2.0 * lens)).abs() < 1e-8
        );
        assert!((area(&a.clone().and(&b.reversed())) - (200.0 * PI - 2.0 * lens)).abs() < 1e-8);
        // The same contour twice; once each way; and a hole.
        assert!((area(&a.clone().and(&a)) - 100.0 * PI).abs() < 1e-9);
        assert!(area(&a.clone().and(&a.reversed())).abs() < 1e-9);
        assert!((area(&a.with_hole(circle((2.0, 0.0), 3.0))) - 91.0 * PI).abs() < 1e-9);
        assert!((area(&a.clone().and(&circle((2.0, 0.0), 3.0))) - 100.0 * PI).abs() < 1e-9);
    }

    #[test]
    fn stars_and_figures_of_eight() {
        // A pentagram drawn in one go: painted solid, and with its middle left out.
        let points: Vec<Point> = around(5).map(|a| polar(a * 2.0, 10.0)).collect();
        let pentagram = Path::closed(points);
        let (outer, inner) = (10.0, 10.0 * (PI / 10.0).sin() / (7.0 * PI / 10.0).sin());
        let whole = 5.0 * outer * inner * (PI / 5.0).sin();
        let middle = 2.5 * inner * inner * (2.0 * PI / 5.0).sin();
        assert!((area(&pentagram) - whole).abs() < 1e-8);
        assert!((area(&pentagram.with_fill_rule(FillRule::EvenOdd)) - (whole - middle)).abs() < 1e-8);
        let eight = Path::closed([(0.0, 0.0), (10.0, 10.0), (10.0, 0.0), (0.0, 10.0)]);
        assert!((area(&eight) - 50.0).abs() < 1e-9);
        assert_eq!(eight.centroid().unwrap().map(|c| (c.x.round(), c.y.round())), Some((5.0, 5.0)));
    }

    #[test]
    fn shared_sides_and_open_contours() {
        let two = rectangle((0.0, 0.0), 10.0, 10.0).and(&rectangle((10.0, 2.0), 5.0, 5.0));
        assert!((area(&two) - 125.0).abs() < 1e-9);
        let against = rectangle((0.0, 0.0), 10.0, 10.0).and(&rectangle((5.0, 0.0), 5.0, 10.0).reversed());
        assert!((area(&against) - 50.0).abs() < 1e-9);
        assert!((area(&Path::open([(0.0, 0.0), (10.0, 0.0), (10.0, 10.0)])) - 50.0).abs() < 1e-12);
        assert_eq!(area(&Path::open([(0.0, 0.0), (10.0, 0.0)])), 0.0);
        assert_eq!(Path::open([(0.0, 0.0), (10.0, 0.0)]).centroid().unwrap(), None);
        assert_eq!(area(&Path::empty()), 0.0);
        // Curves that are straight, and run back and forth along one another.
        let folded = start((0.0, 0.0)).quad((-25.0, 0.0), (0.0, 60.0)).quad((0.0, 30.0), (0.0, 0.0));
        assert!((area(&folded.quad((0.0, 80.0), (0.0, 0.0)).close()) - 500.0).abs() < 1e-9);
        // Three sides over the same stretch, which begins at a joint for two pairs of them.
        let thrice = Path::closed([
            (-20.0, 125.0),
            (0.0, 33.0),
            (0.0, 10.0),
            (0.0, 30.0),
            (0.0, 27.0),
            (13.0, 50.0),
            (50.0, 83.0),
        ]);
        let once = Path::closed([(-20.0, 125.0), (0.0, 33.0), (0.0, 27.0), (13.0, 50.0), (50.0, 83.0)]);
        assert!((area(&thrice) - area(&once)).abs() < 1e-9);
        // A spike that runs out and back adds nothing.
        let spike = Path::closed([(0.0, 0.0), (10.0, 0.0), (20.0, 0.0), (10.0, 0.0), (10.0, 10.0)]);
        assert!((area(&spike) - 50.0).abs() < 1e-9);
    }

    /// The slow twin: how many of the points of a fine grid are inside.
    fn sampled(path: &Path) -> f64 {
        const SIDE: u32 = 110;
        let bounds = path.bounds().unwrap();
        let cell = bounds.size() / f64::from(SIDE);
        let place = |i: u32, j: u32| bounds.min + cell * pt(f64::from(i) + 0.5, f64::from(j) + 0.5);
        let inside = (0..SIDE)
            .flat_map(|i| (0..SIDE).map(move |j| (i, j)))
            .filter(|(i, j)| path.inside(place(*i, *j)));
        inside.count() as f64 * cell.x * cell.y
    }

    #[test]
    fn cubics_near_cusps_loops_and_inflections_have_the_area_that_is_painted() {
        let data = Path::from_data("M0 0C100 100 0 100 100 0.01").unwrap();
        assert!((area(&data) - 2999.85).abs() < 0.3, "{}", area(&data));
        let mut seed = 7_u64;
        let mut random = || {
            seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            (seed >> 33) as f64 / f64::from(1_u32 << 31)
        };
        for i in 0..80 {
            let (p, q) = (pt(0.0, 0.0), pt(100.0, random() * 60.0 - 30.0));
            let (lift, lean) = (40.0 + 80.0 * random(), 20.0 * random());
            // A cusp where the handles cross just so; near it by ever less.
            let near = 10.0_f64.powi(-(i % 7)) * (random() - 0.5);
            let full = 1.0 + near;
            let control1 = p + (q - p) * full + pt(lean, lift);
            let control2 = q + (p - q) * full + pt(lean, lift);
            let path = start(p).cubic(control1, control2, q).open();
            let size = path.bounds().unwrap().size();
            let (ours, slow) = (area(&path), sampled(&path));
            assert!((ours - slow).abs() < 0.02 * size.x * size.y, "{ours} and {slow} for {path:?}");
        }
    }

    #[test]
    fn the_middle_of_half_a_disc() {
        let half = pie((0.0, 0.0), 10.0, deg(0.0), deg(180.0));
        let centroid = half.centroid().unwrap().unwrap();
        assert!(centroid.distance(pt(0.0, 40.0 / (3.0 * PI))) < 1e-9, "{centroid}");
    }
}
