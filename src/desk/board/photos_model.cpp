#include "desk/board/photos_model.h"

#include "desk/session.h"
#include "report/photo_file.h"

namespace ombrek {

PhotosView photosView(const Kit& kit, const Build& build, const std::string& id) {
    PhotosView v;
    const Step* step = kit.step(id);
    v.known = step != nullptr;
    if (!v.known) {
        v.now = QStringLiteral("No step is chosen.");
        v.why = QStringLiteral("Esc goes back.");
        return v;
    }
    v.now = qs(step->title) + QStringLiteral(".");
    v.why = QStringLiteral("What it looked like before and after. The book keeps them at %1 pixels.")
                .arg(kPhotoSide);
    for (const PhotoLine& photo : build.photos) {
        if (photo.step == id) (photo.after ? v.after : v.before) = photo.id;
    }
    return v;
}

}  // namespace ombrek
