// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/spreadsheet/number_format.h"
#include "core/import/spreadsheet/sheet.h"
#include "core/import/spreadsheet/xml_walk.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <map>
#include <optional>
#include <utility>

namespace inchpeg
{

namespace
{

/// The part that a relationship of another part points to. Targets are relative to that part's folder, or
/// absolute in the archive ("/xl/worksheets/sheet1.xml"): ECMA-376 part 2, 6.5.
std::string partOf(std::string_view fromPart, std::string_view target)
{
    std::string path = target.starts_with('/')
                           ? std::string(target.substr(1))
                           : std::string(fromPart.substr(0, fromPart.rfind('/') + 1)) + std::string(target);
    std::replace(path.begin(), path.end(), '\\', '/');
    for (std::size_t up = path.find("/../"); up != std::string::npos; up = path.find("/../")) {
        const std::size_t before = up == 0 ? std::string::npos : path.rfind('/', up - 1);
        path.erase(before == std::string::npos ? 0 : before + 1,
                   up + 4 - (before == std::string::npos ? 0 : before + 1));
    }
    for (std::size_t here = path.find("./"); here == 0; here = path.find("./"))
        path.erase(0, 2);
    return path;
}

struct Relationship {
    std::string type; ///< its last word: "worksheet"
    std::string part;
};

/// Those of a part, by their id; none where it has none.
Result<std::map<std::string, Relationship>> relationshipsOf(const Archive &archive, const std::string &part)
{
    const std::size_t folder = part.rfind('/') + 1;
    const std::string name = part.substr(0, folder) + "_rels/" + part.substr(folder) + ".rels";
    std::map<std::string, Relationship> found;
    if (!archive.has(name))
        return found;
    const Result<std::string> xml = archive.read(name);
    if (!xml)
        return xml.error();
    const Status walked =
        walkXml(*xml, {.begins = [&](std::string_view element, const XmlAttributes &attributes) {
            if (element != "Relationship" || attributes.value("TargetMode") == "External")
                return;
            const std::string_view type = attributes.value("Type");
            found[std::string(attributes.value("Id"))] = {std::string(type.substr(type.rfind('/') + 1)),
                                                          partOf(part, attributes.value("Target"))};
        }});
    if (!walked)
        return walked.error();
    return found;
}

const Relationship *ofType(const std::map<std::string, Relationship> &relationships, std::string_view type)
{
    for (const auto &[id, relationship] : relationships) {
        if (relationship.type == type)
            return &relationship;
    }
    return nullptr;
}

/// "_x000A_" stands for a character that XML cannot hold: ECMA-376 part 1, 22.4.2.4. They part nothing here.
std::string withoutEscapes(std::string text)
{
    for (std::size_t at = text.find("_x00"); at != std::string::npos; at = text.find("_x00", at + 1)) {
        if (at + 6 < text.size() && text[at + 6] == '_')
            text.replace(at, 7, " ");
    }
    return text;
}

/// What all sheets of a workbook refer to.
struct Shared {
    std::vector<std::string> texts;
    std::vector<NumberLook> looks; ///< by the number of a cell's style
    bool startsIn1904 = false;
};

/// The text of one item: runs of rich text are joined, pronunciations left out.
class ItemText
{
public:
    void begins(std::string_view element)
    {
        m_isPhonetic = m_isPhonetic || element == "rPh";
        m_isText = element == "t" && !m_isPhonetic;
    }
    void ends(std::string_view element)
    {
        m_isText = false;
        m_isPhonetic = m_isPhonetic && element != "rPh";
    }
    void text(std::string_view part)
    {
        if (m_isText)
            m_text += part;
    }
    std::string take() { return withoutEscapes(std::exchange(m_text, {})); }

private:
    std::string m_text;
    bool m_isText = false;
    bool m_isPhonetic = false;
};

Status readSharedTexts(const std::string &xml, std::vector<std::string> &texts)
{
    ItemText item;
    return walkXml(xml,
                   {.begins = [&](std::string_view element, const XmlAttributes &) { item.begins(element); },
                    .ends =
                        [&](std::string_view element) {
                            item.ends(element);
                            if (element == "si")
                                texts.push_back(item.take());
                        },
                    .text = [&](std::string_view text) { item.text(text); }});
}

Status readStyles(const std::string &xml, std::vector<NumberLook> &looks)
{
    constexpr std::size_t kMostFormats = 100000;
    std::map<std::size_t, NumberLook> own;
    bool isInCells = false;
    return walkXml(
        xml, {.begins =
                  [&](std::string_view element, const XmlAttributes &attributes) {
                      if (element == "numFmt")
                          own[attributes.count("numFmtId", 0, kMostFormats)] =
                              lookOf(attributes.value("formatCode"));
                      isInCells = isInCells || element == "cellXfs";
                      if (element != "xf" || !isInCells)
                          return;
                      const std::size_t id = attributes.count("numFmtId", 0, kMostFormats);
                      const auto found = own.find(id);
                      looks.push_back(found != own.end() ? found->second : builtInLook(id));
                  },
              .ends = [&](std::string_view element) { isInCells = isInCells && element != "cellXfs"; }});
}

struct CellPlace {
    std::size_t row = 0;
    std::size_t column = 0;
};

/// "B12" is row 11, column 1.
std::optional<CellPlace> placeOf(std::string_view reference)
{
    std::size_t column = 0;
    std::size_t at = 0;
    for (; at < reference.size() && at < 3 && reference[at] >= 'A' && reference[at] <= 'Z'; ++at)
        column = column * 26 + static_cast<std::size_t>(reference[at] - 'A' + 1);
    std::size_t row = 0;
    const char *end = reference.data() + reference.size();
    const auto read = std::from_chars(reference.data() + at, end, row);
    if (column == 0 || read.ec != std::errc() || read.ptr != end || row == 0)
        return std::nullopt;
    return CellPlace{row - 1, column - 1};
}

/// Walks through the XML of one sheet.
class SheetReader
{
public:
    SheetReader(const Shared &shared, Sheet &sheet) : m_shared(shared), m_sheet(sheet) {}

    Status read(const std::string &xml)
    {
        return walkXml(xml,
                       {.begins = [this](std::string_view element,
                                         const XmlAttributes &attributes) { begins(element, attributes); },
                        .ends = [this](std::string_view element) { ends(element); },
                        .text = [this](std::string_view text) { takeText(text); }});
    }

private:
    void begins(std::string_view element, const XmlAttributes &attributes)
    {
        if (element == "row") {
            // Neither rows nor cells must tell their place: they follow each other then.
            m_row = attributes.count("r", m_row + 2, kMostSheetRows) - 1;
            m_column = kBefore;
        } else if (element == "c") {
            const std::optional<CellPlace> place = placeOf(attributes.value("r"));
            m_column = place ? place->column : m_column + 1;
            if (place)
                m_row = place->row;
            m_type = attributes.value("t");
            m_style = attributes.count("s", 0, m_shared.looks.size());
            m_value.clear();
            m_formula.clear();
            m_hasFormula = false;
        } else if (element == "mergeCell") {
            addMerged(attributes.value("ref"));
        } else if (element == "f") {
            m_hasFormula = true;
        }
        m_isValue = element == "v";
        m_isFormula = element == "f";
        m_item.begins(element);
    }

    void ends(std::string_view element)
    {
        m_isValue = false;
        m_isFormula = false;
        m_item.ends(element);
        if (element == "c")
            putCell(m_sheet, m_row, m_column, cellText());
    }

    void takeText(std::string_view text)
    {
        if (m_isValue)
            m_value += text;
        if (m_isFormula)
            m_formula += text;
        m_item.text(text);
    }

    std::string cellText()
    {
        std::string item = m_item.take();
        if (m_type == "inlineStr")
            return item;
        if (m_value.empty())
            return m_hasFormula ? "=" + m_formula : std::string(); // its result was never stored
        if (m_type == "s") {
            std::size_t index = 0;
            const auto read = std::from_chars(m_value.data(), m_value.data() + m_value.size(), index);
            return read.ec == std::errc() && index < m_shared.texts.size() ? m_shared.texts[index]
                                                                           : std::string();
        }
        if (m_type == "str")
            return withoutEscapes(m_value);
        if (m_type == "b")
            return m_value == "1" ? "yes" : "no";
        if (m_type == "e")
            return "#N/A";
        if (m_type == "d" || m_style >= m_shared.looks.size())
            return m_value;
        const NumberLook &look = m_shared.looks[m_style];
        if (look.as == ShownAs::Percent)
            return percentText(m_value);
        if (look.as != ShownAs::Number)
            return dayText(m_value, look.as, m_shared.startsIn1904);
        return look.unit.empty() ? m_value : m_value + " " + look.unit;
    }

    void addMerged(std::string_view reference)
    {
        const std::size_t colon = reference.find(':');
        const std::optional<CellPlace> first = placeOf(reference.substr(0, colon));
        const std::optional<CellPlace> last =
            colon == std::string_view::npos ? std::nullopt : placeOf(reference.substr(colon + 1));
        if (first && last && last->row > first->row)
            m_sheet.merged.push_back({first->row, first->column, last->row - first->row + 1});
    }

    static constexpr std::size_t kBefore = std::size_t(0) - 1; ///< one on is the first

    const Shared &m_shared;
    Sheet &m_sheet;
    std::size_t m_row = kBefore;
    std::size_t m_column = kBefore;
    std::string m_type;
    std::size_t m_style = 0;
    std::string m_value;
    std::string m_formula;
    bool m_hasFormula = false;
    bool m_isValue = false;
    bool m_isFormula = false;
    ItemText m_item;
};

struct SheetEntry {
    std::string name;
    std::string relationship;
    bool isHidden = false;
};

} // namespace

Result<std::vector<Sheet>> readExcelWorkbook(const Archive &archive)
{
    const Result<std::map<std::string, Relationship>> ofArchive = relationshipsOf(archive, "");
    if (!ofArchive)
        return ofArchive.error();
    const Relationship *main = ofType(*ofArchive, "officeDocument");
    const std::string bookPart = main != nullptr ? main->part : "xl/workbook.xml";
    const Result<std::string> book = archive.read(bookPart);
    if (!book)
        return book.error();
    const Result<std::map<std::string, Relationship>> ofBook = relationshipsOf(archive, bookPart);
    if (!ofBook)
        return ofBook.error();
    Shared shared;
    std::vector<SheetEntry> entries;
    const auto takeEntry = [&](std::string_view element, const XmlAttributes &attributes) {
        if (element == "workbookPr")
            shared.startsIn1904 =
                attributes.value("date1904") == "1" || attributes.value("date1904") == "true";
        if (element == "sheet") // its own id comes first: "sheetId", then "r:id"
            entries.push_back({std::string(attributes.value("name")), std::string(attributes.value("id")),
                               attributes.value("state").ends_with("idden")});
    };
    if (const Status walked = walkXml(*book, {.begins = takeEntry}); !walked)
        return walked.error();
    const auto readPart = [&](std::string_view type, auto read) -> Status {
        const Relationship *part = ofType(*ofBook, type);
        if (part == nullptr || !archive.has(part->part))
            return ok();
        const Result<std::string> xml = archive.read(part->part);
        return xml ? read(*xml) : Status(xml.error());
    };
    if (const Status texts = readPart(
            "sharedStrings", [&](const std::string &xml) { return readSharedTexts(xml, shared.texts); });
        !texts)
        return texts.error();
    if (const Status styles =
            readPart("styles", [&](const std::string &xml) { return readStyles(xml, shared.looks); });
        !styles)
        return styles.error();
    std::vector<Sheet> sheets;
    for (const SheetEntry &entry : entries) {
        const auto found = ofBook->find(entry.relationship);
        if (found == ofBook->end() || found->second.type != "worksheet")
            continue; // a chart of its own page, a dialogue
        const Result<std::string> xml = archive.read(found->second.part);
        if (!xml)
            return xml.error();
        Sheet &sheet = sheets.emplace_back();
        sheet.name = entry.name;
        sheet.isHidden = entry.isHidden;
        if (const Status read = SheetReader(shared, sheet).read(*xml); !read)
            return read.error();
    }
    return sheets;
}

} // namespace inchpeg
