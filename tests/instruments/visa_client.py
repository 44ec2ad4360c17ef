#!/usr/bin/python3
"""Reads the practice bench as a stranger would: with PyVISA and its own sockets. Ports come as arguments: multimeter, L/C meter, counter, power meter."""
import sys
import warnings

warnings.simplefilter("ignore")
import pyvisa  # noqa: E402

manager = pyvisa.ResourceManager("@py")


def at(port):
    instrument = manager.open_resource(f"TCPIP0::127.0.0.1::{port}::SOCKET", read_termination="\n", write_termination="\n")
    instrument.timeout = 20000
    return instrument


multimeter, lc, counter, power = (at(port) for port in sys.argv[1:5])
print("idn", multimeter.query("*IDN?"))
multimeter.write('SIM:PROB "check:rail5"')
print("volts", multimeter.query("MEAS:VOLT:DC?"))
multimeter.write("MAKE:COFFEE")
print("error", multimeter.query("SYST:ERR?"))
lc.write('SIM:PROB "part:C2"')
print("farads", lc.query_ascii_values("MEASure:CAPacitance?")[0])
counter.write('SIM:PROB "proof:frequency"')
print("hertz", counter.query("meas:freq?"))
power.write('SIM:PROB "proof:power"')
print("dbm", power.query("MEAS:POW?"))
