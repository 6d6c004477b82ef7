//! Single routines, by the module of the library that has them.

mod chance;
mod measure;
mod motion;
mod number;
mod path;
mod picture;
mod read;
mod reshape;
mod scene;
mod shape;
mod sheet;
