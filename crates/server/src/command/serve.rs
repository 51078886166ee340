//! `upper-lobe serve`: the application on loopback, and behind pairing and TLS to the shop's network.

use super::database::open_store;
use super::{ServeOptions, demo};
use crate::app::{Shared, configure};
use crate::guard::AllowedHosts;
use crate::instruments::Hub;
use crate::jobs::Jobs;
use crate::pairing::{Certificate, Door, Files, Networked, Shop, private_addresses};
use crate::points;
use crate::shop::Lessons;
use actix_web::dev::Server;
use actix_web::{App, HttpServer, web};
use anyhow::{Context, bail};
use std::io::Write;
use std::net::{SocketAddr, TcpListener};
use std::process::ExitCode;
use std::time::Duration;
use tracing_actix_web::TracingLogger;
use tracing_subscriber::EnvFilter;

/// Connections of all devices together.
const MOST_CONNECTIONS: usize = 100;
/// The head of a request has this long to come.
const HEADERS_TIME: Duration = Duration::from_secs(10);
/// Seconds that answers under way get after a stop signal.
const SHUTDOWN_SECONDS: u64 = 5;

/// Serves until stopped.
pub fn run(options: &ServeOptions) -> anyhow::Result<ExitCode> {
    if !options.address.is_loopback() {
        bail!(
            "{} is not a loopback address: this door is for this machine only; use 127.0.0.1, and --lan for other devices",
            options.address
        );
    }
    start_logs(options.log_json);
    actix_web::rt::System::new().block_on(serve(options))?;
    Ok(ExitCode::SUCCESS)
}

async fn serve(options: &ServeOptions) -> anyhow::Result<()> {
    let here = listen(SocketAddr::new(options.address, options.port), "--port or UPPER_LOBE_PORT")?;
    let bound = here.local_addr()?;
    let store = open_store(&options.database, options.read_only).await?;
    let lan = Lan::of(options)?;
    let is_empty = store.list(false).await?.is_empty() && store.list(true).await?.is_empty();
    if options.demo && !store.is_read_only() && is_empty {
        demo::load(&store).await?;
    }
    let damage = store.check().await?;
    for found in &damage {
        tracing::error!("{found}");
    }
    let addresses = lan.as_ref().map_or_else(Vec::new, |lan| lan.addresses.clone());
    let fingerprint = lan.as_ref().map_or_else(String::new, |lan| lan.certificate.fingerprint.clone());
    let stages = web::Data::from(points::kept(&store));
    let shared = Shared {
        store: web::Data::new(store.clone()),
        damage: web::Data::new(damage),
        stages,
        lessons: web::Data::new(Lessons::default()),
        jobs: web::Data::new(Jobs::default()),
        hub: web::Data::new(Hub::default()),
        hosts: web::Data::new(AllowedHosts::loopback(bound.port())),
        door: web::Data::new(Door::Here),
        shop: web::Data::new(Shop::open(addresses.clone(), fingerprint)),
    };
    let at_the_door = Shared {
        hosts: web::Data::new(AllowedHosts::of(addresses.clone())),
        door: web::Data::new(Door::Shop),
        ..shared.clone()
    };
    let server =
        HttpServer::new(move || App::new().wrap(TracingLogger::default()).configure(configure(shared.clone())))
            .shutdown_timeout(SHUTDOWN_SECONDS)
            .workers(2)
            .listen(here)?
            .run();
    say_where(&format!("http://{bound}/"), &addresses);
    match lan {
        None => server.await?,
        Some(lan) => {
            let door = lan.served(at_the_door)?;
            // Both stop at the same signal.
            let (here, door) = tokio::join!(server, door);
            here.and(door)?;
        }
    }
    store.close().await;
    tracing::info!("stopped");
    Ok(())
}

/// Tells where it is, at once: who started it may read a line and no more.
fn say_where(here: &str, addresses: &[String]) {
    let mut says = format!("Upper Lobe is at {here} (stop with Ctrl+C)\n");
    if !addresses.is_empty() {
        says += &format!("Paired devices reach it at {}\n", addresses.join(", "));
    }
    // Nobody has to listen.
    let _ = std::io::stdout().write_all(says.as_bytes());
}

fn listen(address: SocketAddr, other: &str) -> anyhow::Result<TcpListener> {
    TcpListener::bind(address).with_context(|| format!("listening on {address}; choose another with {other}"))
}

/// The door to the shop's network.
struct Lan {
    listeners: Vec<TcpListener>,
    /// As devices reach it.
    addresses: Vec<String>,
    certificate: Certificate,
}

impl Lan {
    /// `None` where nobody asked for it.
    fn of(options: &ServeOptions) -> anyhow::Result<Option<Self>> {
        let Some(asked) = options.lan.lan else { return Ok(None) };
        let own = match asked {
            Some(own) => vec![own],
            None => private_addresses().context("finding this machine's addresses; name one: --lan 192.168.1.20")?,
        };
        if own.is_empty() {
            bail!("this machine has no address in a private network; name one: --lan 192.168.1.20");
        }
        if let Some(foreign) = own.iter().find(|own| !own.is_of_the_shop()) {
            bail!("{foreign} is not an address of a private network: this server is for one shop, not for the world");
        }
        let listeners = own
            .iter()
            .map(|own| listen(SocketAddr::new(*own, options.lan.lan_port), "--lan-port or UPPER_LOBE_LAN_PORT"))
            .collect::<anyhow::Result<Vec<_>>>()?;
        let addresses = listeners
            .iter()
            .map(|own| Ok(format!("https://{}", own.local_addr()?)))
            .collect::<anyhow::Result<Vec<_>>>()?;
        let files = match (&options.lan.certificate, &options.lan.key) {
            (Some(certificate), Some(key)) => Files { certificate: certificate.clone(), key: key.clone() },
            _ => Files::beside(&options.database.database).made_for(&own)?,
        };
        Ok(Some(Self { listeners, addresses, certificate: files.read()? }))
    }

    /// The server of it.
    fn served(self, shared: Shared) -> anyhow::Result<Server> {
        let app = move || App::new().wrap(TracingLogger::default()).configure(configure(shared.clone()));
        let mut server = HttpServer::new(app)
            .shutdown_timeout(SHUTDOWN_SECONDS)
            .workers(2)
            .max_connections(MOST_CONNECTIONS)
            .client_request_timeout(HEADERS_TIME);
        for own in self.listeners {
            server = server.listen_rustls_0_23(own, self.certificate.config.clone())?;
        }
        Ok(server.run())
    }
}

fn start_logs(json: bool) {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("warn,upper_lobe_server=info"));
    let logs = tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr);
    if json { logs.json().init() } else { logs.init() }
}
