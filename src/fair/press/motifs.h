#pragma once
// The motifs of the fairground, one function each. Sizes in texels; colors as given.
#include "fair/press/brush.h"

namespace fair {

QImage awning(int s, QColor a, QColor b);
QImage sign(int w, int h, const QString& text, QColor ground, QColor letters);
QImage horse(int s, QColor ground, QColor coat, QColor saddle);
QImage bunting(int s);
QImage pipes(int s);
QImage bulbs(int s, bool lit);
QImage planks(int s, QColor wood, int seed);
QImage scrollwork(int s, QColor ground, QColor line);
QImage pole(int s, QColor a, QColor b);
QImage tiles(int s, QColor a, QColor b);
QImage star_panel(int s);
QImage moon_panel(int s);
QImage sun_panel(int s);
QImage swan(int s);
QImage rooster(int s);
QImage teacup(int s);
QImage balloon(int s);
QImage target(int s);
QImage ducks(int s);
QImage drum(int s);
QImage clock_face(int s);
QImage wheel(int s);
QImage curtain(int s, QColor cloth);
QImage rope(int s);
QImage canvas(int s, int seed);
QImage popcorn(int s);
QImage ticket(int w, int h, const QString& text, QColor paper);
QImage ground_cover(int s, QColor a, QColor b, double scale, int seed);
QImage bricks(int s);
QImage chevrons(int s);
QImage poster(int w, int h, const QString& title, QColor ground);
QImage mirror(int s);
QImage gloss(int s, int seed);
QImage evening(int s, int face);
QImage lamp(int s);
QImage tent(int s);
QImage flag(int s);
/// A glow whose colors are multiplied by its alpha.
QImage haze(int s);
/// Normals with x in alpha and y in green, nothing in the others.
QImage green_alpha_normals(const QImage& normals);

}  // namespace fair
