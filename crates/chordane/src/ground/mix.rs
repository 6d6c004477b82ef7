//! The one mixer of seeds: everything that is left to chance comes from it.

/// The step from one number of a seeded row to the next: 2 to the power of 64 over the golden ratio.
pub(crate) const GOLDEN_GAMMA: u64 = 0x9e37_79b9_7f4a_7c15;

/// Bits mixed so that neighbours differ in all of them.
///
/// Source: variant 13 by D. Stafford of the finaliser of splitmix64 (G. Steele, D. Lea and C. Flood, 2014).
pub(crate) fn mixed(bits: u64) -> u64 {
    let bits = (bits ^ (bits >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
    let bits = (bits ^ (bits >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
    bits ^ (bits >> 31)
}

/// Returns the `index`-th value of the sequence that `seed` starts; any index can be read directly.
pub(crate) fn in_row(seed: u64, place: u64) -> u64 {
    mixed(seed.wrapping_add(place.wrapping_add(1).wrapping_mul(GOLDEN_GAMMA)))
}
