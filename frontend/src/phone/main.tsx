import "./phone.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { Phone } from "./Phone";

const dark = window.matchMedia("(prefers-color-scheme: dark)");
const light = () => {
  document.documentElement.dataset.mantineColorScheme = dark.matches ? "dark" : "light";
};
light();
dark.addEventListener("change", light);
// nothing is kept for later where the browser allows no worker: the page works with a connection then
if ("serviceWorker" in navigator)
  void navigator.serviceWorker.register("/phone-sw.js", { scope: "/p/" }).catch(() => {});

document
  .querySelector("link[rel=manifest]")
  ?.setAttribute("href", `/api/page/${location.pathname.split("/")[2]}/app.webmanifest`);

const root = document.getElementById("phone");
const token = location.pathname.split("/")[2] ?? "";
if (root)
  createRoot(root).render(
    <StrictMode>
      <Phone token={token} />
    </StrictMode>,
  );
