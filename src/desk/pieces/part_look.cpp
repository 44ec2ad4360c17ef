#include "desk/pieces/part_look.h"

#include "desk/session.h"
#include "kit/package.h"
#include "station/board/loupe.h"

namespace ombrek {

PartLook partLookOf(const Part& part) {
    PartLook out{part.kind, qs(part.value), qs(part.mark), qs(senseOf(part)), PartLook::Body::byKind};
    if (isLed(part))
        out.body = PartLook::Body::led;
    else if (polarisedCapacitor(part))
        out.body = PartLook::Body::electrolytic;
    else if (part.kind == PartKind::transistor || part.kind == PartKind::ic)
        out.body = hasTab(part)          ? PartLook::Body::tab
                   : isThreeLegged(part) ? PartLook::Body::flat
                                         : PartLook::Body::chip;
    else if (onTwoHoles(part))
        out.body = PartLook::Body::twoHoles;
    return out;
}

}  // namespace ombrek
