import "@fontsource-variable/archivo/wdth.css";
