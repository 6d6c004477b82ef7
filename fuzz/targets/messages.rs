#![no_main]

libfuzzer_sys::fuzz_target!(|data: &[u8]| chordane_fuzz::messages(data));
