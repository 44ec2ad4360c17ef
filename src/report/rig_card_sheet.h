#pragma once

#include "judged/rig_card.h"
#include "report/a4_sheet.h"

namespace ombrek {

/// The card for the rig's lid, one page A6. @param call  of the builder; may be empty @param now  when
A4Sheet rigCardSheet(const RigCard& card, const QString& call, std::int64_t now);

}  // namespace ombrek
