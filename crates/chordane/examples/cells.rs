//! Cells: one pennant as a function of the box that it must fill, with a notch of a fixed size.
//!
//!     cargo run --example cells [FOLDER]

#![allow(clippy::print_stdout, reason = "an example says where to look")]

use chordane::number::Cell;
use chordane::prelude::*;

/// Shares of the cell mixed with fixed lengths: the notch and the hem keep their size.
fn pennant(cell: Cell, cloth: &str) -> Group {
    let notch = part(1.0) - 24.0;
    let body = Path::closed([
        cell.at(0.0, 0.0),
        cell.at(1.0, 0.0),
        cell.at(notch, 0.5),
        cell.at(1.0, 1.0),
        cell.at(0.0, 1.0),
    ]);
    let kite = Path::closed([(0.0, -5.0), (4.0, -1.0), (0.0, 6.0), (-4.0, -1.0)]);
    let room = cell.inset([8.0.into(), part(0.0) + 30.0, 8.0.into(), part(0.0) + 18.0]);
    let hem = cell.inset([part(0.0), part(1.0) - 10.0, part(0.0), part(0.0)]);
    group()
        .add(body.fill(cloth))
        .add(hem.path().fill("#20303c"))
        .add(kite.fitted(&room, Fit::Contain).fill("#f4efe6"))
}

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let sheet = sheet(640.0, 420.0).ground("#fbf8f1");
    let page = sheet.cell().inset(20.0);
    let rows: Vec<Cell> = page.split_down([part(0.4), part(0.25)]).collect();
    let mut all = group();
    for (row, columns, cloth) in [(0, 2, "#c8553d"), (1, 4, "#2f6f73"), (2, 7, "#7d4e7a")] {
        for cell in rows[row].grid(columns, 1) {
            all = all.add(pennant(cell.inset(6.0), cloth));
        }
    }
    let sheet = sheet.add(all);

    let folder = std::env::args().nth(1).unwrap_or_else(|| "chordane-examples".to_owned());
    std::fs::create_dir_all(&folder)?;
    sheet.save(format!("{folder}/cells.svg"))?;
    sheet.save(format!("{folder}/cells.png"))?;
    println!("cells.svg and cells.png are in {folder}");
    Ok(())
}
