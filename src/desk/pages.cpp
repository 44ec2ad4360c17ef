#include "desk/pages.h"

#include "desk/air/air_page.h"
#include "desk/air/licence_page.h"
#include "desk/air/log_page.h"
#include "desk/air/repairs_page.h"
#include "desk/bench/add_instrument_page.h"
#include "desk/bench/bench_page.h"
#include "desk/bench/talk_page.h"
#include "desk/bench/teach_page.h"
#include "desk/board/board_page.h"
#include "desk/board/loupe_page.h"
#include "desk/board/photos_page.h"
#include "desk/board/sitting_page.h"
#include "desk/drawers/drawers_page.h"
#include "desk/first_light/first_light_page.h"
#include "desk/frequency/crystals_page.h"
#include "desk/frequency/dial_page.h"
#include "desk/frequency/reference_page.h"
#include "desk/help/guide_page.h"
#include "desk/history/history_page.h"
#include "desk/kit_sheet/band_page.h"
#include "desk/kit_sheet/kit_page.h"
#include "desk/list/delivery_page.h"
#include "desk/list/list_page.h"
#include "desk/meters/meters_page.h"
#include "desk/paper/paper_page.h"
#include "desk/parts_in/parts_in_page.h"
#include "desk/proof/coupler_page.h"
#include "desk/proof/filter_page.h"
#include "desk/proof/powers_page.h"
#include "desk/proof/proof_page.h"
#include "desk/proof/spectrum_page.h"
#include "desk/proof/why_less_page.h"
#include "desk/remedy/remedy_page.h"
#include "desk/settings/settings_page.h"
#include "desk/sign_off/sign_off_page.h"
#include "desk/start/start_page.h"
#include "desk/suspects/compare_page.h"
#include "desk/suspects/exercise_page.h"
#include "desk/suspects/squeeze_page.h"
#include "desk/suspects/suspects_page.h"
#include "desk/suspects/symptoms_page.h"
#include "desk/tune/live_page.h"
#include "desk/tune/tune_page.h"
#include "desk/which_part/which_part_page.h"
#include "desk/winding/cores_page.h"
#include "desk/winding/figures_page.h"
#include "desk/winding/picture_page.h"
#include "desk/winding/trimmer_page.h"
#include "desk/winding/winding_page.h"

namespace ombrek {
namespace {

template <class P>
Page* make(Session& session) {
    return new P(session);
}

}  // namespace

const std::vector<PageRow>& pageRows() {
    using Where = PageRow::Where;
    static const std::vector<PageRow> rows{
        {"parts-in", "F1", Where::station, "", "parts-in", make<PartsInPage>},
        {"winding", "F2", Where::station, "", "winding", make<WindingPage>},
        {"board", "F3", Where::station, "", "board", make<BoardPage>},
        {"first-light", "F4", Where::station, "", "first-light", make<FirstLightPage>},
        {"tune", "F5", Where::station, "", "tune", make<TunePage>},
        {"proof", "F6", Where::station, "", "proof", make<ProofPage>},
        {"sign-off", "F7", Where::station, "", "sign-off", make<SignOffPage>},
        {"start", "", Where::start, "", "first-evening", make<StartPage>},
        {"drawers", "F8", Where::beside, "", "parts-in", make<DrawersPage>},
        {"meters", "F9", Where::beside, "", "parts-in", make<MetersPage>},
        {"history", "F10", Where::beside, "", "sign-off", make<HistoryPage>},
        {"kit", "F12", Where::beside, "", "own-kit", make<KitPage>},
        {"settings", "Ctrl+,", Where::beside, "", "desk", make<SettingsPage>},
        {"guide", "Ctrl+H", Where::beside, "", "desk", make<GuidePage>},
        {"band", "", Where::beside, "", "own-kit", make<BandPage>},
        {"which-part", "", Where::beside, "parts-in", "parts-in", make<WhichPartPage>},
        {"remedy", "", Where::beside, "parts-in", "parts-in", make<RemedyPage>},
        {"list", "", Where::beside, "", "parts-in", make<ListPage>},
        {"delivery", "", Where::beside, "parts-in", "parts-in", make<DeliveryPage>},
        {"paper", "", Where::beside, "", "own-kit", make<PaperPage>},
        {"suspects", "", Where::beside, "first-light", "first-light", make<SuspectsPage>},
        {"exercise", "", Where::beside, "first-light", "first-light", make<ExercisePage>},
        {"compare", "", Where::beside, "first-light", "first-light", make<ComparePage>},
        {"squeeze", "", Where::beside, "first-light", "first-light", make<SqueezePage>},
        {"symptoms", "", Where::beside, "first-light", "first-light", make<SymptomsPage>},
        {"live", "", Where::beside, "tune", "tune", make<LivePage>},
        {"reference", "", Where::beside, "tune", "tune", make<ReferencePage>},
        {"crystals", "", Where::beside, "tune", "tune", make<CrystalsPage>},
        {"dial", "", Where::beside, "tune", "tune", make<DialPage>},
        {"powers", "", Where::beside, "proof", "proof", make<PowersPage>},
        {"spectrum", "", Where::beside, "proof", "proof", make<SpectrumPage>},
        {"filter", "", Where::beside, "proof", "proof", make<FilterPage>},
        {"why-less", "", Where::beside, "proof", "proof", make<WhyLessPage>},
        {"coupler", "", Where::beside, "proof", "proof", make<CouplerPage>},
        {"licence", "", Where::beside, "sign-off", "sign-off", make<LicencePage>},
        {"air", "", Where::beside, "sign-off", "sign-off", make<AirPage>},
        {"log", "Ctrl+L", Where::beside, "", "sign-off", make<LogPage>},
        {"repairs", "", Where::beside, "sign-off", "sign-off", make<RepairsPage>},
        {"bench", "Ctrl+R", Where::beside, "", "instruments", make<BenchPage>},
        {"add-instrument", "", Where::beside, "", "instruments", make<AddInstrumentPage>},
        {"teach", "", Where::beside, "", "instruments", make<TeachPage>},
        {"talk", "", Where::beside, "", "instruments", make<TalkPage>},
        {"trimmer", "", Where::beside, "winding", "winding", make<TrimmerPage>},
        {"picture", "", Where::beside, "winding", "winding", make<PicturePage>},
        {"cores", "", Where::beside, "winding", "winding", make<CoresPage>},
        {"figures", "", Where::beside, "winding", "winding", make<FiguresPage>},
        {"sitting", "", Where::beside, "board", "board", make<SittingPage>},
        {"loupe", "", Where::beside, "board", "board", make<LoupePage>},
        {"photos", "", Where::beside, "board", "board", make<PhotosPage>}};
    return rows;
}

QString guideOf(const QString& page) {
    const auto& rows = pageRows();
    const auto row =
        std::find_if(rows.begin(), rows.end(), [&](const PageRow& r) { return page == QLatin1String(r.id); });
    return QString::fromUtf8(row == rows.end() ? "first-evening" : row->guide) + QStringLiteral(".md");
}

}  // namespace ombrek
