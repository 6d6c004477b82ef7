//! What everything stands on: faults and how values carry them, budgets, names of choices, short numbers, the
//! nearest name, the mixer of seeds, and work spread over threads.

mod budget;
mod carried;
mod fault;
mod mix;
mod named;
mod near;
mod short;
pub(crate) mod threads;
mod visible;
mod xml;

pub use budget::{Budget, Stopped};
pub use carried::FaultSlot;
pub use fault::{Fault, FaultKind};
pub use named::{Given, Named};
pub use threads::on_this_thread;

// Messages of scores and of the command are worded as those of the library: for these crates alone.
#[doc(hidden)]
pub use near::nearest;
#[doc(hidden)]
pub use short::{plain_number, short, trimmed};
#[doc(hidden)]
pub use visible::{shortened, visible};

#[cfg(feature = "svg-read")]
pub(crate) use budget::interruptible;
pub(crate) use budget::{at_most, buffer, exhausted, has_room, limited, unlimited};
pub(crate) use mix::{GOLDEN_GAMMA, in_row, mixed};
pub(crate) use named::named;
pub(crate) use xml::is_xml;
