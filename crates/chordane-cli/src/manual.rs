//! `chordane completions` and `chordane man`, made from the command's own definition.

use chordane::write::write_whole;

use crate::failure::Failure;
use crate::options::{CompletionsOptions, ManOptions, command};
use crate::output::{print, say};

pub(crate) fn completions(options: &CompletionsOptions, name: &'static str) -> Result<(), Failure> {
    let mut text = Vec::new();
    clap_complete::generate(options.shell, &mut command(name), name, &mut text);
    print(&text)
}

pub(crate) fn pages(options: &ManOptions, name: &'static str) -> Result<(), Failure> {
    match &options.out {
        Some(folder) => {
            std::fs::create_dir_all(folder).map_err(|error| Failure::writing(folder, &error))?;
            let mut whole = command(name).disable_help_subcommand(true);
            whole.build();
            for command in std::iter::once(&whole).chain(whole.get_subcommands()) {
                let page = clap_mangen::Man::new(command.clone());
                let file = folder.join(page.get_filename());
                let mut text = Vec::new();
                page.render(&mut text).map_err(|error| Failure::writing(&file, &error))?;
                write_whole(&file, &text).map_err(|error| Failure::writing(&file, &error))?;
            }
            say(&format!("the manual pages are in {}", folder.display()));
            Ok(())
        }
        None => {
            let mut text = Vec::new();
            clap_mangen::Man::new(command(name))
                .render(&mut text)
                .map_err(|error| Failure::standard_output(&error))?;
            print(&text)
        }
    }
}
