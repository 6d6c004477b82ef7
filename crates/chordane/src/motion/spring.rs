//! Springs: a weight on a spring that is let go.

/// How near the end a spring has to be, and stay, to have settled.
const SETTLING_TOLERANCE: f64 = 1e-3;

/// A spring with a weight of 1, let go at rest one unit from its end.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Spring {
    stiffness: f64,
    damping: f64,
}

impl Spring {
    /// Both numbers are above 0.
    pub(super) fn new(stiffness: f64, damping: f64) -> Self {
        Self { stiffness, damping }
    }

    /// Seconds until it stays within a thousandth of its end.
    pub(super) fn seconds(self) -> f64 {
        let (own, decay) = (self.stiffness.sqrt(), self.damping / 2.0);
        // The slowest part dies away at this rate.
        let rate = if decay > own {
            self.stiffness / (decay + (decay * decay - self.stiffness).sqrt())
        } else {
            decay
        };
        let mut seconds = -SETTLING_TOLERANCE.ln() / rate;
        // Near the critical damping the envelope is larger than 1.
        while self.left_bound(seconds) > SETTLING_TOLERANCE {
            seconds *= 1.05;
        }
        seconds
    }

    /// How far it is from its end at a share of that time: 1 at 0, and exactly 0 at 1.
    pub(super) fn at(self, share: f64) -> f64 {
        let seconds = self.seconds();
        let last = self.left(seconds);
        1.0 - (self.left(share * seconds) - last * share)
    }

    /// How far it is from its end after some seconds; the formulas of a damped oscillator.
    fn left(self, t: f64) -> f64 {
        let decay = self.damping / 2.0;
        let square = self.stiffness - decay * decay;
        let fade = (-decay * t).exp();
        if square > 1e-9 * self.stiffness {
            let speed = square.sqrt();
            fade * ((speed * t).cos() + decay / speed * (speed * t).sin())
        } else if square < -1e-9 * self.stiffness {
            let speed = (-square).sqrt();
            // Both parts are near decay where it is large: their difference would be lost in it.
            let fast = -speed - decay;
            let slow = self.stiffness / fast;
            (slow * (fast * t).exp() - fast * (slow * t).exp()) / (slow - fast)
        } else {
            fade * (1.0 + decay * t)
        }
    }

    /// A bound on how far it can be from then on.
    fn left_bound(self, t: f64) -> f64 {
        let decay = self.damping / 2.0;
        let square = self.stiffness - decay * decay;
        if square > 1e-9 * self.stiffness {
            (-decay * t).exp() * (self.stiffness / square).sqrt().min(1.0 + decay * t)
        } else {
            self.left(t).abs()
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// The same by many small steps of the equation of motion.
    fn slow(spring: Spring, t: f64) -> f64 {
        let steps = 200_000;
        let step = t / f64::from(steps);
        let (mut x, mut v) = (1.0, 0.0);
        for _ in 0..steps {
            let pull = |x: f64, v: f64| -spring.stiffness * x - spring.damping * v;
            let (xm, vm) = (x + v * step / 2.0, v + pull(x, v) * step / 2.0);
            (x, v) = (x + vm * step, v + pull(xm, vm) * step);
        }
        x
    }

    #[test]
    fn springs_move_by_the_equation_and_settle() {
        for (stiffness, damping) in [(1e-6, 1e9), (1e9, 1e9), (1e-6, 1.0), (1.0, 2.0), (1.0, 2.0 + 1e-12)] {
            let spring = Spring::new(stiffness, damping);
            let (half, end) = (spring.at(0.5), spring.at(1.0));
            assert!((0.5..=1.0).contains(&half) && end == 1.0, "{stiffness} {damping}: {half} {end}");
        }
        for (stiffness, damping) in [(100.0, 10.0), (100.0, 20.0), (100.0, 50.0), (400.0, 2.0), (10.0, 6.3)] {
            let spring = Spring::new(stiffness, damping);
            for t in [0.0, 0.05, 0.2, 0.7] {
                let (fast, slow) = (spring.left(t), slow(spring, t));
                assert!((fast - slow).abs() < 1e-6, "{stiffness} {damping} at {t}: {fast} {slow}");
            }
            assert_eq!((spring.at(0.0), spring.at(1.0)), (0.0, 1.0));
            let seconds = spring.seconds();
            for i in 0..200 {
                assert!(
                    spring.left(seconds * (1.0 + f64::from(i) / 50.0)).abs() <= SETTLING_TOLERANCE * 1.001
                );
            }
        }
    }
}
