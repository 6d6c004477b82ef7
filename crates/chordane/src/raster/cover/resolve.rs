//! Which pieces of edges in a row bound the painted region.

use super::row::Row;
use crate::ground::exhausted;
use crate::path::FillRule;

/// The part of an edge that runs through a row: down from `ya` to `yb`, both from 0 to 1 within the row.
#[derive(Clone, Copy, Debug)]
pub(super) struct Piece {
    pub(super) xa: f64,
    pub(super) ya: f64,
    pub(super) xb: f64,
    pub(super) yb: f64,
    pub(super) winding: i32,
}

impl Piece {
    fn left(&self) -> f64 {
        self.xa.min(self.xb)
    }

    fn right(&self) -> f64 {
        self.xa.max(self.xb)
    }

    fn is_full(&self) -> bool {
        self.ya == 0.0 && self.yb == 1.0
    }

    fn slope(&self) -> f64 {
        (self.xb - self.xa) / (self.yb - self.ya)
    }

    /// The x at a height; exact at the ends.
    fn x_at(&self, y: f64) -> f64 {
        if y <= self.ya {
            self.xa
        } else if y >= self.yb {
            self.xb
        } else {
            self.xa + (y - self.ya) * self.slope()
        }
    }
}

/// Beyond this many pieces that overlap in one row, strips of even height stand in for cutting at each crossing:
/// the work would grow with the square of the pieces. Coverage is then still exact along x, and off by at most
/// what lies between crossings inside one strip.
const MAX_EXACT_CUTS: usize = 96;

/// The strips that stand in for cuts.
const FALLBACK_STRIPS: usize = 64;

/// Where more than so many stand side by side in one row, it is cut into fewer: what is off at their edges evens out.
const DENSE_THRESHOLD: f64 = 500.0;

const DENSE_STRIPS: usize = 16;

/// Finds the pieces that bound the painted region of a row. Kept between rows for its storage.
#[derive(Debug, Default)]
pub(super) struct Resolver {
    cuts: Vec<f64>,
    /// The pieces that cross a strip: x half way down it, and which piece.
    crossing: Vec<(f64, u32)>,
}

impl Resolver {
    /// Adds to the row what the pieces enclose. Reorders the pieces.
    pub(super) fn resolve(&mut self, pieces: &mut [Piece], rule: FillRule, row: &mut Row) {
        // Between two full edges that do not meet, nothing can be wrong.
        if let [a, b] = pieces
            && a.is_full()
            && b.is_full()
            && a.winding != b.winding
        {
            let (left, right) = if a.left() <= b.left() { (a, b) } else { (b, a) };
            if left.right() <= right.left() {
                row.piece(left.xa, left.xb, 1.0);
                row.piece(right.xa, right.xb, -1.0);
                return;
            }
        }
        if pieces.len() <= 24 {
            insertion_sort(pieces);
        } else {
            pieces.sort_unstable_by(|a, b| a.left().total_cmp(&b.left()));
        }
        let mut winding = 0;
        let mut rest = pieces;
        while !rest.is_empty() {
            let (count, summary) = cluster(rest);
            let (these, others) = rest.split_at_mut(count);
            rest = others;
            if summary.is_one_crossing() {
                let before = rule.encloses(winding);
                winding += summary.winding;
                let after = rule.encloses(winding);
                if before != after {
                    let sign = if after { 1.0 } else { -1.0 };
                    these.iter().for_each(|p| row.piece(p.xa, p.xb, (p.yb - p.ya) * sign));
                }
            } else {
                self.strips(these, winding, rule, row);
                winding += summary.total.round() as i32;
            }
        }
    }

    /// Cuts pieces into strips within which none begins, ends or crosses another, and keeps of each strip the
    /// pieces at which the painted region begins or ends.
    fn strips(&mut self, pieces: &[Piece], winding: i32, rule: FillRule, row: &mut Row) {
        self.cuts.clear();
        self.cuts.extend([0.0, 1.0]);
        if pieces.len() <= MAX_EXACT_CUTS {
            for (i, a) in pieces.iter().enumerate() {
                self.cuts.extend([a.ya, a.yb]);
                for b in pieces.iter().skip(i + 1) {
                    self.cuts.extend(crossing(a, b));
                }
            }
        } else {
            // How many of them stand side by side, where each goes through the whole row.
            let beside: f64 = pieces.iter().map(|piece| piece.yb - piece.ya).sum();
            let strips = if beside <= DENSE_THRESHOLD { FALLBACK_STRIPS } else { DENSE_STRIPS };
            self.cuts.extend((1..strips).map(|i| i as f64 / strips as f64));
        }
        self.cuts.sort_unstable_by(f64::total_cmp);
        self.cuts.dedup();
        let mut top = 0.0;
        for &bottom in self.cuts.iter().skip(1) {
            if exhausted(pieces.len()) {
                break;
            }
            let middle = 0.5 * (top + bottom);
            self.crossing.clear();
            for (i, piece) in pieces.iter().enumerate() {
                if piece.ya <= middle && middle < piece.yb {
                    self.crossing.push((piece.x_at(middle), i as u32));
                }
            }
            self.crossing.sort_unstable_by(|a, b| a.0.total_cmp(&b.0).then(a.1.cmp(&b.1)));
            let mut winding = winding;
            for &(_, i) in &self.crossing {
                let Some(piece) = pieces.get(i as usize) else { continue };
                let before = rule.encloses(winding);
                winding += piece.winding;
                let after = rule.encloses(winding);
                if before != after {
                    let height = if after { bottom - top } else { top - bottom };
                    row.piece(piece.x_at(top), piece.x_at(bottom), height);
                }
            }
            top = bottom;
        }
    }
}

/// The height at which two pieces cross, strictly inside both.
fn crossing(a: &Piece, b: &Piece) -> Option<f64> {
    if a.right() <= b.left() || b.right() <= a.left() {
        return None;
    }
    let (top, bottom) = (a.ya.max(b.ya), a.yb.min(b.yb));
    if top >= bottom {
        return None;
    }
    let at_top = a.x_at(top) - b.x_at(top);
    let at_bottom = a.x_at(bottom) - b.x_at(bottom);
    if at_top * at_bottom >= 0.0 {
        return None;
    }
    let y = top + (bottom - top) * (at_top / (at_top - at_bottom));
    (y > top && y < bottom).then_some(y)
}

/// What a run of pieces amounts to.
#[derive(Debug, Default)]
struct Summary {
    /// The winding of the pieces where it is the same for all, else 0.
    winding: i32,
    /// The heights of the pieces, added up, and added up with their windings.
    height: f64,
    total: f64,
    /// Zero when as many pieces begin at each height as end there, winding counted: then the run is crossed
    /// equally often at every height. A sum of scrambled heights, so that the order does not matter.
    open_ends: u64,
}

impl Summary {
    fn take(&mut self, piece: &Piece, first: bool) {
        self.winding = if first || self.winding == piece.winding { piece.winding } else { 0 };
        let height = piece.yb - piece.ya;
        self.height += height;
        self.total += height * f64::from(piece.winding);
        if piece.ya > 0.0 {
            self.open_end(piece.ya, piece.winding);
        }
        if piece.yb < 1.0 {
            self.open_end(piece.yb, -piece.winding);
        }
    }

    fn open_end(&mut self, y: f64, winding: i32) {
        // Finaliser of the 64-bit variant of MurmurHash3 (A. Appleby, public domain): spreads every bit.
        let mut bits = y.to_bits();
        bits = (bits ^ (bits >> 33)).wrapping_mul(0xff51_afd7_ed55_8ccd);
        bits = (bits ^ (bits >> 33)).wrapping_mul(0xc4ce_b9fe_1a85_ec53);
        bits ^= bits >> 33;
        self.open_ends =
            if winding > 0 { self.open_ends.wrapping_add(bits) } else { self.open_ends.wrapping_sub(bits) };
    }

    fn is_balanced(&self) -> bool {
        self.open_ends == 0
    }

    /// One line through the whole row, in however many pieces.
    fn is_one_crossing(&self) -> bool {
        self.is_balanced() && self.winding != 0 && (self.height - 1.0).abs() < 1e-6
    }
}

/// The number of pieces, from the first on, that have to be seen together: those that overlap along x, and on
/// until the run is crossed equally often at every height.
fn cluster(pieces: &[Piece]) -> (usize, Summary) {
    let mut summary = Summary::default();
    let mut right = f64::NEG_INFINITY;
    for (i, piece) in pieces.iter().enumerate() {
        if i > 0 && piece.left() >= right && summary.is_balanced() {
            return (i, summary);
        }
        right = right.max(piece.right());
        summary.take(piece, i == 0);
    }
    (pieces.len(), summary)
}

fn insertion_sort(pieces: &mut [Piece]) {
    for i in 1..pieces.len() {
        let mut at = i;
        while at > 0 && pieces[at].left() < pieces[at - 1].left() {
            pieces.swap(at, at - 1);
            at -= 1;
        }
    }
}
