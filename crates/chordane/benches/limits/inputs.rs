//! Inputs made from fixed seeds.

use chordane::prelude::*;

/// A plain generator of even numbers (Marsaglia's xorshift, 2003): the same inputs on every machine.
pub(crate) struct Random(u64);

impl Random {
    pub(crate) fn new(seed: u64) -> Self {
        Self(seed.wrapping_mul(0x9e37_79b9_7f4a_7c15) | 1)
    }

    /// Evenly from `low` up to `high`.
    pub(crate) fn between(&mut self, low: f64, high: f64) -> f64 {
        self.0 ^= self.0 << 13;
        self.0 ^= self.0 >> 7;
        self.0 ^= self.0 << 17;
        low + (high - low) * ((self.0 >> 11) as f64 / (1_u64 << 53) as f64)
    }

    pub(crate) fn point(&mut self, size: f64) -> Point {
        let x = self.between(0.0, size);
        pt(x, self.between(0.0, size))
    }
}

/// A smooth closed blob of twelve cubics that covers about three quarters of a square.
pub(crate) fn blob(size: f64) -> Path {
    let centre = pt(size, size) * 0.5;
    let n = 12;
    let at = |i: usize| {
        centre + polar(deg(30.0) * i as f64, size * (0.495 + 0.012 * ((i * 5) % 3) as f64 - 0.012))
    };
    let tangent = |i: usize| polar(deg(30.0) * i as f64 + deg(90.0), size * 0.088);
    let pen = (0..n).fold(start(at(0)), |pen, i| {
        let next = (i + 1) % n;
        pen.cubic(at(i) + tangent(i), at(next) - tangent(next), at(next))
    });
    pen.close()
}

/// Path data as design programs write it: relative and absolute, two or three decimals, all the usual commands.
pub(crate) fn path_data(bytes: usize) -> String {
    use std::fmt::Write;
    let mut random = Random::new(7);
    let mut out = String::with_capacity(bytes + 200);
    while out.len() < bytes {
        let p = random.point(1000.0);
        let _ = write!(out, "M{:.2},{:.2}", p.x, p.y);
        for _ in 0..40 {
            let mut n = || random.between(-40.0, 40.0);
            let _ = match (n() as i32).rem_euclid(8) {
                0 | 1 => write!(out, "c{:.2},{:.2},{:.2},{:.2},{:.2},{:.2}", n(), n(), n(), n(), n(), n()),
                2 | 3 => write!(out, "l{:.3} {:.3}", n(), n()),
                4 => write!(out, "C{:.1} {:.1} {:.1} {:.1} {:.1} {:.1}", n(), n(), n(), n(), n(), n()),
                5 => write!(out, "h{:.2}v{:.2}", n(), n()),
                6 => write!(out, "q{:.2} {:.2} {:.2} {:.2}", n(), n(), n(), n()),
                _ => write!(out, "L{} {}", n() as i32, n() as i32),
            };
        }
        out.push_str("z\n");
    }
    out
}
