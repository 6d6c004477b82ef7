//! Reshapes as values: what they have in common, and how they are chained.

use std::fmt;

use crate::ground::{FaultSlot, limited};
use crate::path::{Contour, Path};

/// A path in, a path out. Make your own:
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
/// assert_eq!(sail.then(Shut).scaled(2.0).data(), "M0 0H60L0 80Z");
/// ```
///
/// What cannot be is a fault that the path carries: give one with [`Path::with_fault`]. A fault of the path that comes in
/// need not be looked after: [`Path::then`] hands it on, whatever the reshape does.
///
/// ```
/// use chordane::prelude::*;
///
/// struct Shut;
///
/// impl Reshape for Shut {
///     fn reshape(&self, path: &Path) -> Path {
///         match path.contours() {
///             [only] => Path::closed(only.vertices()),
///             more => path.clone().with_fault(Fault::new("shut", format!("there are {} contours; give one", more.len()))),
///         }
///     }
/// }
///
/// let told = Path::empty().then(Shut).then(Round::new(3.0)).sound().unwrap_err().to_string();
/// assert_eq!(told, "`shut`: there are 0 contours; give one");
/// ```
#[diagnostic::on_unimplemented(
    message = "`{Self}` is not a reshape",
    label = "a path goes in here and a path has to come out",
    note = "give a reshape such as `Round::new(6.0)`, a reference or a box of one, or a function `ReshapeFn(|path: &Path| ..)`"
)]
pub trait Reshape {
    /// The path reshaped. What cannot be is a fault that the path carries.
    fn reshape(&self, path: &Path) -> Path;

    /// This reshape, then the next one, as one: in the order in which they are read.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let soft_dashes = Round::new(6.0).then(Dash::new([12.0, 6.0]));
    /// assert!(rectangle((0.0, 0.0), 90.0, 60.0).then(&soft_dashes).contours().len() > 10);
    /// ```
    fn then<R: Reshape>(self, next: R) -> Chain<Self, R>
    where
        Self: Sized,
    {
        Chain { first: self, next }
    }
}

impl<R: Reshape + ?Sized> Reshape for &R {
    fn reshape(&self, path: &Path) -> Path {
        (**self).reshape(path)
    }
}

impl<R: Reshape + ?Sized> Reshape for Box<R> {
    fn reshape(&self, path: &Path) -> Path {
        (**self).reshape(path)
    }
}

impl<R: Reshape + ?Sized> Reshape for std::sync::Arc<R> {
    fn reshape(&self, path: &Path) -> Path {
        (**self).reshape(path)
    }
}

/// A function from path to path as a reshape.
///
/// ```
/// use chordane::prelude::*;
/// let moved = Path::open([(0.0, 0.0), (9.0, 0.0)]).then(ReshapeFn(|path: &Path| path.moved((5.0, 0.0))));
/// assert_eq!(moved.data(), "M5 0H14");
/// ```
#[derive(Clone, Copy)]
pub struct ReshapeFn<F>(pub F);

impl<F> fmt::Debug for ReshapeFn<F> {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_tuple("ReshapeFn").finish_non_exhaustive()
    }
}

impl<F: Fn(&Path) -> Path> Reshape for ReshapeFn<F> {
    fn reshape(&self, path: &Path) -> Path {
        self.0(path)
    }
}

/// Two reshapes, one after the other; see [`Reshape::then`].
///
/// ```
/// use chordane::prelude::*;
/// let steps = Round::new(6.0).then(Dash::new([12.0, 6.0]));
/// let sail = Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
/// assert_eq!(sail.then(steps), sail.then(Round::new(6.0)).then(Dash::new([12.0, 6.0])));
/// ```
#[derive(Clone, Copy, Debug)]
pub struct Chain<A, B> {
    first: A,
    next: B,
}

impl<A: Reshape, B: Reshape> Reshape for Chain<A, B> {
    fn reshape(&self, path: &Path) -> Path {
        path.then(&self.first).then(&self.next)
    }
}

impl Path {
    /// The path reshaped: steps are taken in the order in which they are read. With a fault, of the path or of the reshape, the path
    /// comes out as it went in and carries that fault, whatever the reshape does.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
    /// let stitched = sail.then(Round::new(6.0)).then(Dash::new([12.0, 6.0]));
    /// assert!(stitched.contours().iter().all(|dash| !dash.is_closed()));
    /// let steps: Vec<Box<dyn Reshape>> = vec![Box::new(Round::new(6.0)), Box::new(Dash::new([12.0, 6.0]))];
    /// assert_eq!(steps.iter().fold(sail, |path, step| path.then(step)), stitched);
    /// ```
    #[must_use]
    pub fn then(&self, reshape: impl Reshape) -> Self {
        if self.fault().is_some() {
            return self.clone();
        }
        let made = reshape.reshape(self);
        match made.fault() {
            Some(fault) => self.clone().with_fault(fault.clone()),
            None => made,
        }
    }
}

/// Does what all reshapes have in common. With a fault, of the path, of a setting or of the work, or where the budget is used up,
/// the path comes out as it went in and carries the fault; else it has the contours that are made, under the path's fill rule.
pub(crate) fn reshaped(
    call: &'static str,
    path: &Path,
    check: impl FnOnce(&mut FaultSlot),
    make: impl FnOnce(&mut FaultSlot) -> Vec<Contour>,
) -> Path {
    let with = |contours, fault| Path::from_parts(contours, path.fill_rule(), fault);
    let mut fault = path.carried().clone();
    check(&mut fault);
    if fault.get().is_none() {
        match limited(call, || make(&mut fault)) {
            Ok(contours) => {
                let made = with(contours, fault).within_numbers(call);
                if made.fault().is_none() {
                    return made;
                }
                fault = made.carried().clone();
            }
            Err(stopped) => fault = FaultSlot::of(stopped),
        }
    }
    with(path.contours().to_vec(), fault)
}
