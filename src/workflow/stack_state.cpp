#include "workflow/stack_state.h"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "base/json_number.h"
#include "base/text.h"

namespace skivet {

namespace {

using Json = nlohmann::json;

constexpr std::array<std::pair<DeliveredEntry::What, const char*>, 3> whats{
    {{DeliveredEntry::What::texture, "texture"}, {DeliveredEntry::What::renamed, "renamed"}, {DeliveredEntry::What::removed, "removed"}}};

Json address_to_json(const Address& a) { return {{"source", a.source.string()}, {"inner", a.inner}}; }
Address address_from(const Json& j) {
    Address out{j.at("source").get<std::string>(), j.at("inner").get<std::vector<std::string>>()};
    if (out.inner.empty()) throw std::runtime_error("an address without a path");
    return out;
}

Json stack_to_json(const ParcelStack& stack) {
    Json out{{"layers", Json::array()}, {"choices", Json::array()}};
    for (const auto& l : stack.layers) {
        Json one{{"parcel", l.parcel}, {"id", l.id}, {"title", l.title}, {"version", l.version}, {"author", l.author}, {"at", l.at}};
        one["matches"] = Json::array();
        for (const auto& m : l.matches) {
            auto match = address_to_json(m.address);
            match["texture"] = m.texture;
            one["matches"].push_back(std::move(match));
        }
        out["layers"].push_back(std::move(one));
    }
    for (const auto& c : stack.choices) {
        auto one = address_to_json(c.address);
        one["id"] = c.id;
        out["choices"].push_back(std::move(one));
    }
    return out;
}

ParcelStack stack_from(const Json& j) {
    ParcelStack out;
    for (const auto& l : j.value("layers", Json::array())) {
        StackLayer layer;
        layer.parcel = safe_relative_path(l.value("parcel", std::string()));
        layer.id = l.value("id", std::string());
        layer.title = l.value("title", std::string());
        layer.version = l.value("version", std::string());
        layer.author = l.value("author", std::string());
        layer.at = whole_number(l, "at", std::int64_t{0});
        for (const auto& m : l.value("matches", Json::array()))
            layer.matches.push_back({whole_number<std::uint32_t>(m.at("texture")), address_from(m)});
        out.layers.push_back(std::move(layer));
    }
    for (const auto& c : j.value("choices", Json::array())) out.choices.push_back({address_from(c), c.value("id", std::string())});
    return out;
}

Json step_to_json(const StackStep& s) { return {{"delivery", s.delivery}, {"before", stack_to_json(s.before)}}; }
StackStep step_from(const Json& j) { return {j.at("delivery").get<std::string>(), stack_from(j.at("before"))}; }

}  // namespace

bool ParcelStack::empty() const {
    return std::all_of(layers.begin(), layers.end(), [](const StackLayer& l) { return l.is_own(); });
}

std::optional<std::size_t> ParcelStack::find(const std::string& id) const {
    for (std::size_t i = 0; i < layers.size(); ++i)
        if (id.empty() ? layers[i].is_own() : !layers[i].is_own() && layers[i].id == id) return i;
    return std::nullopt;
}

ParcelStack ParcelStack::with_own() const {
    auto out = *this;
    if (!find({})) out.layers.emplace_back();
    return out;
}

std::vector<std::filesystem::path> ParcelStack::sources() const {
    std::vector<std::filesystem::path> out;
    for (const auto& layer : layers)
        for (const auto& match : layer.matches)
            if (std::find(out.begin(), out.end(), match.address.source) == out.end()) out.push_back(match.address.source);
    return out;
}

Json to_json(const StackState& state) {
    auto out = stack_to_json(state.stack);
    out["steps"] = Json::array();
    for (const auto& s : state.steps) out["steps"].push_back(step_to_json(s));
    if (state.pending) out["pending"] = step_to_json(*state.pending);
    out["delivered"] = Json::array();
    for (const auto& d : state.delivered) {
        auto one = address_to_json(d.address);
        for (const auto& [what, name] : whats)
            if (what == d.what) one["what"] = name;
        one["delivery"] = d.delivery;
        for (const auto& [key, text] :
             {std::pair{"like", &d.like}, {"original", &d.original_hash}, {"texture", &d.texture_hash}, {"path", &d.path}})
            if (!text->empty()) one[key] = *text;
        out["delivered"].push_back(std::move(one));
    }
    return out;
}

StackState stack_state_from(const Json& j) {
    StackState out;
    out.stack = stack_from(j);
    for (const auto& s : j.value("steps", Json::array())) out.steps.push_back(step_from(s));
    if (j.contains("pending")) out.pending = step_from(j.at("pending"));
    for (const auto& d : j.value("delivered", Json::array())) {
        DeliveredEntry one;
        for (const auto& [what, name] : whats)
            if (d.value("what", std::string()) == name) one.what = what;
        one.delivery = d.at("delivery").get<std::string>();
        one.address = address_from(d);
        one.like = d.value("like", std::string());
        one.original_hash = safe_relative_path(d.value("original", std::string()));
        one.texture_hash = safe_relative_path(d.value("texture", std::string()));
        one.path = d.value("path", std::string());
        out.delivered.push_back(std::move(one));
    }
    return out;
}

}  // namespace skivet
