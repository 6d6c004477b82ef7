//! The running sums of one row of pixels.

/// One row. Adding a piece leaves, in each pixel, the change of coverage against the pixel before it.
///
/// The pixels are numbered from 1 here: slot 0 takes what lies left of the picture.
#[derive(Debug, Default)]
pub(super) struct Row {
    changes: Vec<f32>,
    /// A bit for each slot that was touched.
    touched: Vec<u64>,
}

impl Row {
    /// Makes room for a picture of a width. What was there must have been drained.
    pub(super) fn fit(&mut self, width: usize) {
        let slots = width + 4;
        if self.changes.len() != slots {
            self.changes = vec![0.0; slots];
            self.touched = vec![0; slots.div_ceil(64)];
        }
    }

    #[inline]
    fn add(&mut self, slot: usize, change: f64) {
        if let Some(sum) = self.changes.get_mut(slot) {
            *sum += change as f32;
        }
    }

    #[inline]
    fn touch(&mut self, first: usize, last: usize) {
        for slot in first..=last {
            if let Some(word) = self.touched.get_mut(slot >> 6) {
                *word |= 1 << (slot & 63);
            }
        }
    }

    /// Adds the area to the right of a piece that runs over the height `dy` of the row, from `xa` to `xb`.
    /// `dy` is negative for a piece that ends a covered stretch.
    #[inline]
    pub(super) fn piece(&mut self, xa: f64, xb: f64, dy: f64) {
        let (left, right) = if xa < xb { (xa + 1.0, xb + 1.0) } else { (xb + 1.0, xa + 1.0) };
        if left < 0.0 && right > 0.0 {
            // What lies left of the picture is all in slot 0.
            let beyond = dy * left / (left - right);
            self.add(0, beyond);
            self.touch(0, 0);
            return self.piece(-1.0, right - 1.0, dy - beyond);
        }
        let (left, right) = (left.max(0.0), right.max(0.0));
        let (first, last) = (left as usize, (right as usize).min(self.changes.len()));
        if first == last {
            // Within one pixel: the trapezoid to its right.
            let beyond = ((left + right) * 0.5 - first as f64) * dy;
            self.add(first, dy - beyond);
            self.add(first + 1, beyond);
            self.touch(first, first + 1);
            return;
        }
        // Over several pixels, each covered more than the one before: differences of the triangle and trapezoids.
        let slope = dy / (right - left);
        let mut covered = 0.0;
        let mut before = 0.0;
        for slot in first..=last {
            let begin = left.max(slot as f64);
            let end = right.min((slot + 1) as f64);
            let height = (end - begin) * slope;
            // What lies to the right of this part inside the pixel, on top of all that began further left.
            let area = covered + height * ((slot + 1) as f64 - 0.5 * (begin + end));
            self.add(slot, area - before);
            before = area;
            covered += height;
        }
        self.add(last + 1, dy - before);
        self.touch(first, last + 1);
    }

    /// Calls `span` with each run of pixels of one coverage (first pixel, length, coverage), left to right, and
    /// leaves the row clean. Runs that are not covered are left out.
    #[inline]
    pub(super) fn drain(&mut self, width: usize, mut span: impl FnMut(usize, usize, f32)) {
        let mut sum = 0.0_f32;
        // The slot from which the sum holds.
        let mut from = 0_usize;
        for (at, word) in self.touched.iter_mut().enumerate() {
            let mut bits = std::mem::take(word);
            while bits != 0 {
                let slot = at * 64 + bits.trailing_zeros() as usize;
                bits &= bits - 1;
                if slot > from {
                    emit(from, slot, width, sum, &mut span);
                }
                from = slot;
                if let Some(change) = self.changes.get_mut(slot) {
                    sum += std::mem::take(change);
                }
            }
        }
        emit(from, width + 1, width, sum, &mut span);
    }
}

/// Coverage below this is what rounding leaves behind, not area.
const COVERAGE_EPSILON: f32 = 1.0 / 4096.0;

#[inline]
fn emit(from: usize, to: usize, width: usize, sum: f32, span: &mut impl FnMut(usize, usize, f32)) {
    let (begin, end) = (from.max(1), to.min(width + 1));
    if sum > COVERAGE_EPSILON && begin < end {
        // Sums of many pieces miss a whole by a few parts in ten million.
        span(begin - 1, end - begin, if sum > 1.0 - COVERAGE_EPSILON { 1.0 } else { sum });
    }
}
