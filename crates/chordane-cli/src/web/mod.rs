//! Pages on this machine: where they are found, who is let in, and the talk with them.

mod assets;
mod guard;
mod serve;

use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::sync::Arc;

pub(crate) use assets::{LIVE, TRACE};
pub(crate) use guard::token;
pub(crate) use serve::{Answer, Host, Outlet};

use crate::failure::Failure;
use crate::options::PageOptions;
use crate::output::say;
use guard::Guard;

/// The port where none is asked for, or the next ones that are free.
const PORT: u16 = 4717;
const PORT_TRIES: u16 = 20;

/// A port that is open, and the token of this run.
#[derive(Debug)]
pub(crate) struct Place {
    listener: std::net::TcpListener,
    address: SocketAddr,
    host: Option<IpAddr>,
    token: String,
}

impl Place {
    /// The port that was asked for, or the first that is free.
    pub(crate) fn open(options: &PageOptions) -> Result<Self, Failure> {
        let listener = listen(options)?;
        let address = listener.local_addr().map_err(|error| cannot_listen(&error.to_string()))?;
        let token = token()
            .ok_or_else(|| Failure::machine("the system gives no random numbers for a token", "try again"))?;
        Ok(Self { listener, address, host: options.host, token })
    }

    /// Says where the page is found, and serves it beside some work until the program ends.
    pub(crate) fn serve<H: Host>(self, host: Arc<H>, work: impl FnOnce() + Send) -> Result<(), Failure> {
        say(&self.told());
        let failed = |error: std::io::Error| {
            Failure::machine(format!("the page's server ended: {error}"), "start it again")
        };
        let runtime = tokio::runtime::Builder::new_current_thread()
            .enable_io()
            .enable_time()
            .max_blocking_threads(2)
            .build()
            .map_err(failed)?;
        let guard = Guard::new(self.token, self.address.port(), self.host);
        std::thread::scope(|scope| {
            scope.spawn(work);
            runtime.block_on(serve::serve(self.listener, guard, host))
        })
        .map_err(failed)
    }

    /// Where the page is found, as it is printed.
    fn told(&self) -> String {
        let loopback = IpAddr::V4(Ipv4Addr::LOCALHOST);
        let name = self.host.filter(|host| !host.is_unspecified()).unwrap_or(loopback);
        let page = format!("open http://{}/#{}", SocketAddr::new(name, self.address.port()), self.token);
        match self.host {
            Some(host) if !host.is_loopback() => format!(
                "warning: others on the network can reach this page, and whoever has its address can change the file\n{page}"
            ),
            _ => page,
        }
    }
}

fn cannot_listen(why: &str) -> Failure {
    let mend = "name another with --port, or 0 for any that is free";
    Failure::machine(format!("cannot open a port: {why}"), mend)
}

fn listen(options: &PageOptions) -> Result<std::net::TcpListener, Failure> {
    let host = options.host.unwrap_or(IpAddr::V4(Ipv4Addr::LOCALHOST));
    let open = |port: u16| std::net::TcpListener::bind((host, port));
    let listener = match options.port {
        Some(port) => open(port).map_err(|error| match error.kind() {
            std::io::ErrorKind::AddrInUse => Failure::machine(
                format!("port {port} is taken by another program"),
                "name another with --port, or 0 for any that is free",
            ),
            _ => cannot_listen(&error.to_string()),
        })?,
        None => {
            let first = (PORT..PORT + PORT_TRIES).find_map(|port| open(port).ok());
            first.map_or_else(|| open(0), Ok).map_err(|error| cannot_listen(&error.to_string()))?
        }
    };
    listener.set_nonblocking(true).map_err(|error| cannot_listen(&error.to_string()))?;
    Ok(listener)
}
