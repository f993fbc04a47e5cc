#pragma once
// What the catalog asks in windows of its own.
#include "app/models/catalog_model.h"

namespace skivet::app {

/// Says what all textures are for that have the same role part in their name as this one; asks which part when none is known.
void correct_habit(QWidget* parent, CatalogModel* model, std::size_t item, Role role);
/// The project's naming habits and what is proposed.
void show_habits(QWidget* parent, CatalogModel* model);
/// Exports some textures, or all that are found.
void show_export(QWidget* parent, CatalogModel* model, std::vector<std::size_t> some, std::vector<std::size_t> all);

}  // namespace skivet::app
