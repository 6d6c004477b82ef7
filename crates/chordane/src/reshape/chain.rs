//! Reshapes as values: what they have in common, and how they are chained.

use crate::path::Path;

/// A path in, a path out. Any function from path to path is one, and so is what you make yourself:
///
/// ```
/// use chordane::prelude::*;
///
/// /// Every contour closed.
/// struct Shut;
///
/// impl Reshape for Shut {
///     fn reshape(&self, path: &Path) -> Path {
///         let shut = |contour: &Contour| Path::closed(contour.vertices());
///         path.contours().iter().map(shut).fold(Path::empty(), |all, one| all.and(&one))
///     }
/// }
///
/// let sail = Path::open([(0.0, 0.0), (30.0, 0.0), (0.0, 40.0)]);
/// assert_eq!(sail.then(Shut).then(|path: &Path| path.scaled(2.0)).data(), "M0 0H60L0 80Z");
/// ```
pub trait Reshape {
    /// The path reshaped. What cannot be is a fault that the path carries.
    fn reshape(&self, path: &Path) -> Path;

    /// This reshape, then the next one, as one: in the order in which they are read.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let soft_dashes = Round::new(6.0).then(Dash::new([12.0, 6.0]));
    /// assert!(rectangle((0.0, 0.0), 90.0, 60.0).then(soft_dashes).contours().len() > 10);
    /// ```
    fn then<R: Reshape>(self, next: R) -> Chain<Self, R>
    where
        Self: Sized,
    {
        Chain { first: self, next }
    }
}

impl<F: Fn(&Path) -> Path> Reshape for F {
    fn reshape(&self, path: &Path) -> Path {
        self(path)
    }
}

/// Two reshapes, one after the other; see [`Reshape::then`].
#[derive(Clone, Copy, Debug)]
pub struct Chain<A, B> {
    first: A,
    next: B,
}

impl<A: Reshape, B: Reshape> Reshape for Chain<A, B> {
    fn reshape(&self, path: &Path) -> Path {
        self.next.reshape(&self.first.reshape(path))
    }
}

impl Path {
    /// The path reshaped: steps are taken in the order in which they are read.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
    /// let stitched = sail.then(Round::new(6.0)).then(Dash::new([12.0, 6.0]));
    /// assert!(stitched.contours().iter().all(|dash| !dash.is_closed()));
    /// ```
    #[must_use]
    pub fn then(&self, reshape: impl Reshape) -> Self {
        reshape.reshape(self)
    }
}
