#pragma once

#include <memory>

namespace ombrek {

/// A quiet tone whose pitch follows a reading, 0 … 1, over two octaves. Played on a thread of its own; where
/// the machine has no sound it is silent.
class Tone {
 public:
    Tone();
    ~Tone();
    /// A tone that rises with the share 0 … 1.
    void follow(double share);

 private:
    struct Shared;
    std::shared_ptr<Shared> shared_;
};

}  // namespace ombrek
