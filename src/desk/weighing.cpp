#include "desk/weighing.h"

namespace ombrek {
namespace {

constexpr std::size_t kSmall = 1000;  // parts whose readings are weighed in less than 50 ms

/// Whether a story can be told of this moment: of the same build, every loose part in it.
bool stillTold(const BagStory& story, std::int64_t of, const Build& build) {
    return of == build.id && story.looseCould.size() == build.loose.size();
}

}  // namespace

void Weighing::weigh(const Judged& judged) {
    ++asked_;
    kit_ = {};  // nothing is weighed next, unless it is said below
    const Build& build = judged.build();
    if (judged.kit().parts.size() <= kSmall) return;
    if (!stillTold(story_, of_, build)) {  // the first time: it has to be known at once
        story_ = judged.story();
        of_ = build.id;
        return;
    }
    BagStory before = story_;
    before.weighing = true;
    judged.adopt(std::move(before));
    kit_ = judged.kit();
    build_ = build;
    start();
}

void Weighing::start() {
    work_.start<BagStory>(
        [kit = kit_, build = build_](const LongWork::Progress&) { return bagStory(kit, build); },
        [this, of = build_.id, asked = asked_](BagStory story) {
            if (asked != asked_) {  // there were changes since; perhaps another kit is in hand
                if (!kit_.parts.empty()) start();
                return;
            }
            story_ = std::move(story);
            of_ = of;
            emit weighed();
        });
}

}  // namespace ombrek
