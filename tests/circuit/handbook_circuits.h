#pragma once

namespace ombrek {

// Circuits of the kind that every handbook has; their values are ours, and so are their models (typical, from
// memory).

/// A divider, an emitter follower on it, and a lamp's worth of load.
inline const char* const kFollower =
    "follower\nV1 vcc 0 DC 12\nR1 vcc base 10k\nR2 base gnd 10k\nQ1 vcc base out QN\nR3 out 0 1k\n"
    ".model QN NPN(IS=1e-14 BF=150)\n.end\n";

/// A common-emitter stage with its decoupling, behind a diode against wrong polarity.
inline const char* const kStage =
    "a stage\nV1 in 0 12\nD1 in vcc DN\nC1 vcc 0 100u\nR1 vcc base 47k\nR2 base 0 10k\nRc vcc coll 2.2k\n"
    "Re em 0 470\nQ1 coll base em QN\nC2 em 0 10u\n.model QN NPN(IS=1e-14 BF=200)\n"
    ".model DN D(IS=1e-9 N=1.7 RS=0.1)\n.end\n";

/// A stage, a follower behind it, and a lamp that says that there is power.
inline const char* const kTwoStages =
    "* two stages\nV1 vcc 0 DC 13.8\nR1 vcc b1 33k\nR2 b1 0 6.8k\nR3 vcc c1 3.3k\nR4 e1 0 680\n"
    "Q1 c1 b1 e1 QN\nR5 c1 b2 1k\nQ2 vcc b2 e2 QN\nR6 e2 0 1.5k\nR7 e2 out 100\nR8 out 0 4.7k\n"
    "D1 vcc led DL\nR9 led 0 2.2k\n.model QN NPN(IS=1e-14 BF=180)\n.model DL D(IS=1e-18 N=2)\n.end\n";

/// An oscillator's transistor with its gate diode, fed through a dropper with a Zener diode.
inline const char* const kOscillator =
    "a field-effect oscillator at rest\nV1 vcc 0 13.8\nR1 vcc vz 470\nD1 0 vz DZ\nC1 vz 0 100n\n"
    "R2 vz drain 220\nJ1 drain gate source JN\nR3 gate 0 100k\nD2 gate 0 DS\nR4 source 0 470\n"
    "L1 source tap 10u\nR5 tap 0 1k\n.model JN NJF(VTO=-1.8 BETA=1.2m LAMBDA=5m RD=10 RS=10)\n"
    ".model DS D(IS=2.5n N=1.75)\n.model DZ D(IS=1n N=1.1 BV=6.2 IBV=5m RS=3)\n.end\n";

/// A pass transistor on a Zener diode: a regulator with parts of one's own.
inline const char* const kRegulator =
    "a series regulator\nV1 in 0 DC 13.8\nR1 in ref 330\nD1 0 ref DZ\nQ1 in ref out QP\nC1 out 0 47u\n"
    "R2 out 0 100\nR3 out led 470\nD2 led 0 DR\n.model QP NPN(IS=4e-14 BF=90 RE=0.1)\n"
    ".model DZ D(IS=1n N=1.1 BV=9.1 IBV=5m RS=5)\n.model DR D(IS=1e-19 N=1.8 RS=3)\n.end\n";

/// Two transistors that share their emitters' current: the first stage of a product detector.
inline const char* const kPair =
    "a differential pair\nV1 vcc 0 9\nV2 vee 0 -9\nR1 vcc c1 4.7k\nR2 vcc c2 4.7k\nQ1 c1 b1 tail QN\n"
    "Q2 c2 b2 tail QN\nR3 b1 0 10k\nR4 b2 0 10k\nQ3 tail b3 e3 QN\nR5 e3 vee 1k\nR6 0 b3 12k\n"
    "R7 b3 vee 3.3k\n.model QN NPN(IS=1e-14 BF=250 VAF=100)\n.end\n";

/// A complementary pair of an audio amplifier with two diodes for its bias.
inline const char* const kPushPull =
    "complementary followers\nV1 vcc 0 12\nR1 vcc up 2.2k\nD1 up mid DS\nD2 mid down DS\nR2 down 0 2.2k\n"
    "Q1 vcc up top QN\nQ2 0 down low QP\nR3 top out 1\nR4 low out 1\nC1 out ear 220u\nR5 ear 0 32\n"
    ".model QN NPN(IS=4e-14 BF=120)\n.model QP PNP(IS=4e-14 BF=120)\n.model DS D(IS=2.5n N=1.75 "
    "RS=0.6)\n.end\n";

/// A keying switch: the key pulls a PNP's base, which feeds a driver.
inline const char* const kKeying =
    "a keyed stage\nV1 vcc 0 12\nR1 vcc b1 10k\nR2 b1 key 4.7k\nR3 key 0 0.1\nQ1 c1 b1 vcc QP\nR4 c1 0 47k\n"
    "R5 c1 b2 2.2k\nR6 b2 0 1k\nQ2 c2 b2 e2 QN\nR7 c1 c2 100\nR8 e2 0 22\n"
    ".model QP PNP(IS=4e-14 BF=160 RC=0.6)\n.model QN NPN(IS=1e-15 BF=120 RE=0.5)\n.end\n";

/// A final on its bias: an enhancement transistor with a pot's two halves at its gate.
inline const char* const kFinal =
    "a final's bias\nV1 vcc 0 13.8\nV2 v5 0 5\nR1 v5 wiper 4.2k\nR2 wiper 0 5.8k\nR3 wiper gate 1k\n"
    "M1 drain gate 0 0 MN\nL1 vcc drain 10u\nC1 gate 0 10n\nR4 gate 0 100k\n"
    ".model MN NMOS(LEVEL=1 VTO=2.4 KP=0.35 RD=0.3 RS=0.1)\n.end\n";

/// A bridge of four diodes with its load, fed by a direct voltage of either sense.
inline const char* const kBridge =
    "a bridge\nV1 a b 9\nD1 a plus DS\nD2 b plus DS\nD3 minus a DS\nD4 minus b DS\nR1 plus minus 220\n"
    "R2 minus 0 1k\nC1 plus minus 100u\nR3 b 0 10k\n.model DS D(IS=1u N=1.05 RS=0.05)\n.end\n";

inline const char* const kHandbook[] = {kFollower, kStage,    kTwoStages, kOscillator, kRegulator,
                                        kPair,     kPushPull, kKeying,    kFinal,      kBridge};

}  // namespace ombrek
