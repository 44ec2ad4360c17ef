#include "core/parts/colour_words.h"

#include <string>

namespace ombrek {
namespace {

/// English, German, French, Spanish, Italian, Portuguese, Dutch, Swedish, Polish, and short forms; a blank
/// before and behind each word.
struct ColourWords {
    std::string_view name, words;
};
constexpr ColourWords kColourWords[] = {
    {"black", " schwarz noir noire negro negra nero nera preto preta zwart svart czarny blk bk sw "},
    {"brown", " braun brun brune marron marrón marrone castanho marrom bruin brązowy brazowy brn bn br "},
    {"red", " rot rouge rojo roja rosso rossa vermelho vermelha rood röd czerwony rd "},
    {"orange", " naranja arancione arancio laranja oranje pomarańczowy pomaranczowy org orn og "},
    {"yellow",
     " gelb jaune amarillo amarilla giallo gialla amarelo amarela geel gul żółty zolty yel ylw ye "},
    {"green", " grün gruen vert verte verde groen grön zielony grn gn "},
    {"blue", " blau bleu bleue azul blu blauw blå niebieski blu "},
    {"violet", " violett violeta viola lila roxo paars violetta fioletowy vio vlt purple pur "},
    {"grey", " gray grau gris grigio cinza cinzento grijs grå szary gry gy "},
    {"white",
     " weiß weiss blanc blanche blanco blanca bianco bianca branco branca wit vit biały bialy wht wh "},
    {"gold", " or oro dorado ouro dourado goud guld złoty zloty gld gd "},
    {"silver", " silber argent plata plateado argento prata zilver silver srebrny sil slv sr "},
    {"pink", " rosa rose roze różowy rozowy pnk pk "},
};

}  // namespace

std::string_view bandColourOf(std::string_view word) {
    const std::string wanted = " " + std::string(word) + " ";
    for (const ColourWords& colour : kColourWords) {
        if (colour.words.find(wanted) != std::string_view::npos) return colour.name;
    }
    return word;
}

}  // namespace ombrek
