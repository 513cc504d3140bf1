// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/intake/study_from_files.h"

#include "core/import/heading_words.h"
#include "core/intake/head_fields.h"
#include "core/intake/study_from_results.h"
#include "core/planning/planned_test.h"
#include "core/reading/reading_settings.h"
#include "disk/file_bytes.h"
#include "service/intake/files_below.h"
#include "service/intake/intake_list.h"
#include "service/local_day.h"
#include "store/raw_files.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <filesystem>
#include <set>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;

struct TestWords {
    std::string_view word; ///< in small letters
    Method test;
};
constexpr std::array kTestWords = {
    TestWords{"tensile", Method::Tension},
    TestWords{"tension", Method::Tension},
    TestWords{"zug", Method::Tension},
    TestWords{"zugversuch", Method::Tension},
    TestWords{"traction", Method::Tension},
    TestWords{"bend", Method::Bending},
    TestWords{"bending", Method::Bending},
    TestWords{"flex", Method::Bending},
    TestWords{"flexural", Method::Bending},
    TestWords{"flexure", Method::Bending},
    TestWords{"biege", Method::Bending},
    TestWords{"biegung", Method::Bending},
    TestWords{"biegeversuch", Method::Bending},
    TestWords{"flexion", Method::Bending},
    TestWords{"compression", Method::Compression},
    TestWords{"compressive", Method::Compression},
    TestWords{"druck", Method::Compression},
    TestWords{"druckversuch", Method::Compression},
    TestWords{"interlayer", Method::LayerAdhesion},
    TestWords{"layeradhesion", Method::LayerAdhesion},
    TestWords{"adhesion", Method::LayerAdhesion},
    TestWords{"pullout", Method::PullOut},
    TestWords{"pull-out", Method::PullOut},
    TestWords{"auszug", Method::PullOut},
    TestWords{"shear", Method::DoubleShear},
    TestWords{"scher", Method::DoubleShear},
    TestWords{"cisaillement", Method::DoubleShear},
    TestWords{"torsion", Method::Torsion},
    TestWords{"creep", Method::Creep},
    TestWords{"kriech", Method::Creep},
    TestWords{"fluage", Method::Creep},
    TestWords{"hdt", Method::HeatDeflection},
    TestWords{"vicat", Method::Softening},
    TestWords{"puncture", Method::Puncture},
    TestWords{"friction", Method::Friction},
};

/// What the columns of a record tell of its test; nothing where several are made with such columns.
std::optional<Method> testOfColumns(const Layout &layout)
{
    const auto has = [&](ColumnQuantity quantity) {
        return std::any_of(layout.columns.begin(), layout.columns.end(),
                           [&](const Column &column) { return column.quantity == quantity; });
    };
    if (has(ColumnQuantity::Torque))
        return Method::Torsion;
    if (has(ColumnQuantity::Hardness))
        return Method::Hardness;
    if (has(ColumnQuantity::Temperature) && !has(ColumnQuantity::Force))
        return std::nullopt; // a deflection or a needle
    if (!has(ColumnQuantity::Force) && has(ColumnQuantity::Time) &&
        (has(ColumnQuantity::Extension) || has(ColumnQuantity::Strain)))
        return Method::Creep;
    if (has(ColumnQuantity::Force))
        return Method::Tension;
    return std::nullopt;
}

class StudyFinder
{
public:
    explicit StudyFinder(const StudyFromFiles &request) : m_request(request) {}

    Result<FoundStudy> find()
    {
        Result<std::vector<FileBelow>> files = filesBelow(m_request.paths);
        if (!files)
            return files.error();
        m_files = std::move(*files);
        if (m_files.size() == 1) {
            const Result<bool> taken = takeResultsTable();
            if (!taken)
                return taken.error();
            if (*taken)
                return std::move(m_found);
        }
        return findInRecords();
    }

private:
    /// True where the one file is a table of results, and was understood as one.
    Result<bool> takeResultsTable()
    {
        Result<std::string> bytes = readFileBytes(m_files.front().path);
        if (!bytes)
            return bytes.error();
        auto kept = std::make_shared<const std::string>(std::move(*bytes));
        const Result<DecodedText> text = decodeText(*kept);
        const bool isSaid = !m_request.columns.empty() || !m_request.codeColumn.empty();
        if (!text || (!isSaid && !isResultsTable(text->utf8)))
            return false;
        Result<ResultsTable> table = understandResults(
            text->utf8, {m_request.test, m_request.columns, m_request.factors, m_request.codeColumn});
        if (!table)
            return inSheet(*text, table.error());
        m_found.test = table->test;
        if (table->isTestAssumed && !m_request.test) {
            const std::optional<Method> named = testInWords({m_files.front().name});
            if (named)
                return takeAsTest(*named, text->utf8, kept);
            m_found.assumed.push_back(
                fmt::format("No column says which test it was: {} was taken, unless another is said.",
                            methodName(table->test)));
        }
        keepTable(std::move(*table), std::move(kept));
        return true;
    }

    Result<bool> takeAsTest(Method test, std::string_view text, std::shared_ptr<const std::string> kept)
    {
        Result<ResultsTable> table =
            understandResults(text, {test, m_request.columns, m_request.factors, m_request.codeColumn});
        if (!table)
            return table.error();
        m_found.test = test;
        keepTable(std::move(*table), std::move(kept));
        return true;
    }

    void keepTable(ResultsTable table, std::shared_ptr<const std::string> kept)
    {
        m_found.proposal = proposeFromResults(table);
        m_found.assumed.insert(m_found.assumed.end(), table.warnings.begin(), table.warnings.end());
        m_found.results = std::move(table);
        m_found.resultsPath = m_files.front().path;
        m_found.resultsBytes = std::move(kept);
    }

    Result<FoundStudy> findInRecords()
    {
        if (!chooseTest())
            return std::move(m_found);
        std::vector<std::string> paths;
        std::map<std::string, std::string> names;
        for (const FileBelow &file : m_files) {
            paths.push_back(file.path);
            names[file.path] = file.name;
        }
        std::set<std::string> seen;
        for (ImportFile &file : loadRecords(paths, *reductionOf(m_found.test), {})) {
            const std::string folder = fs::path(names[file.path]).parent_path().generic_string();
            const std::string name = (folder.empty() ? "" : folder + '/') +
                                     (file.path == "-" ? std::string("standard input") : file.nameForPeg);
            if (file.problem) {
                m_found.refused.push_back({file.path, *file.problem});
                continue;
            }
            if (!file.specimen && !seen.insert(file.sha256).second) {
                m_found.refused.push_back(
                    {file.path, badInput("it holds the same bytes as another of these files")});
                continue;
            }
            m_found.names.push_back(name);
            m_found.files.push_back(std::move(file));
        }
        if (m_found.files.empty()) {
            if (!m_found.refused.empty())
                return inFileOf(m_found.refused.front());
            return invalidArgument("none of the files is a record");
        }
        m_found.proposal =
            proposeFromNames({m_found.names, headsOfFiles(), m_request.factors, m_request.pattern});
        return std::move(m_found);
    }

    static Error inFileOf(const FoundStudy::Refused &refused)
    {
        Error error = refused.why;
        error.message = refused.file + ": " + errorSentence(error);
        error.position.reset();
        return error;
    }

    /// What is said, else what names and heads say, else what the columns of the first record allow. False
    /// where it has to be asked.
    bool chooseTest()
    {
        if (m_request.test) {
            m_found.test = *m_request.test;
            return true;
        }
        std::vector<std::string> texts;
        for (const FileBelow &file : m_files)
            texts.push_back(file.name);
        std::optional<Method> columns;
        for (const FileBelow &file : m_files) {
            const Result<std::string> bytes = readFileBytes(file.path);
            const Result<DecodedText> text = bytes ? decodeText(*bytes) : Result<DecodedText>(bytes.error());
            const Result<Layout> layout = text ? findLayout(text->utf8) : Result<Layout>(text.error());
            if (!layout)
                continue;
            for (const HeadField &field : headFieldsOf(text->utf8, *layout)) {
                if (meaningOfHead(field.name) == HeadMeaning::Test)
                    texts.push_back(field.value);
            }
            columns = testOfColumns(*layout);
            break;
        }
        if (const std::optional<Method> named = testInWords(texts)) {
            m_found.test = *named;
            return true;
        }
        if (!columns) {
            OpenQuestion question{"which test these are records of", {}};
            for (const MethodFacts &facts : allMethods()) {
                if (facts.reduction != nullptr && !facts.reduction->columns.empty())
                    question.choices.emplace_back(facts.name);
            }
            m_found.proposal.open.push_back(std::move(question));
            return false;
        }
        m_found.test = *columns;
        if (m_found.test == Method::Tension)
            m_found.assumed.push_back(
                "No name and no head says which test it was: tension was taken, unless another is said.");
        return true;
    }

    [[nodiscard]] HeadFields headsOfFiles() const
    {
        HeadFields heads;
        for (const ImportFile &file : m_found.files) {
            std::map<std::string, std::string> fields;
            if (file.text && file.found) {
                for (const HeadField &field : headFieldsOf(file.text->utf8, *file.found))
                    fields[field.name] = field.unit.empty() ? field.value : field.value + ' ' + field.unit;
            }
            heads.push_back(std::move(fields));
        }
        return heads;
    }

    const StudyFromFiles &m_request;
    std::vector<FileBelow> m_files;
    FoundStudy m_found;
};

/// Sizes from the head of a piece's file, and its material for a rail that has none.
Status takeHead(Study &study, Piece &piece, const ImportFile &file)
{
    if (!file.text || !file.found)
        return ok();
    const std::vector<HeadField> fields = headFieldsOf(file.text->utf8, *file.found);
    for (const HeadField &field : fields) {
        const HeadMeaning meaning = meaningOfHead(field.name);
        if (meaning == HeadMeaning::Material) {
            for (Condition &condition : study.conditions) {
                if (condition.id == piece.condition && condition.material.empty())
                    condition.material = field.value;
            }
        }
        const std::optional<LogField> size =
            meaning == HeadMeaning::Width       ? std::optional(LogField::Width)
            : meaning == HeadMeaning::Thickness ? std::optional(LogField::Thickness)
            : meaning == HeadMeaning::Diameter  ? std::optional(LogField::Diameter)
                                                : std::nullopt;
        const std::optional<double> length_mm = size ? lengthOfHead(field) : std::nullopt;
        const bool fits =
            size && (study.sectionShape == SectionShape::Round) == (*size == LogField::Diameter);
        if (!length_mm || !fits)
            continue;
        if (const Status set = setLoggedValue(study, piece, {*size, 0}, *length_mm); !set)
            return set;
    }
    return ok();
}

/// The study is judged by what there is: a property that the table gives, or one that needs no section.
void chooseProperty(Study &study, const GivenResults &given)
{
    const Method test = methodOf(study);
    const std::string_view usual = usualProperty(test).name;
    const auto isGivenIn = [&](std::string_view property) {
        return std::any_of(given.taken.begin(), given.taken.end(),
                           [&](const TakenResult &taken) { return taken.value.property == property; });
    };
    if (!given.taken.empty()) {
        if (!isGivenIn(usual))
            setupOf(study, test).property = given.taken.front().value.property;
        return;
    }
    const bool anySection = std::any_of(study.pieces.begin(), study.pieces.end(),
                                        [](const Piece &piece) { return piece.section.has_value(); });
    constexpr std::string_view kWithoutSection = "peak_force";
    if (!anySection && readsBySection(*reductionOf(test)) &&
        findProperty(*reductionOf(test), kWithoutSection))
        setupOf(study, test).property = kWithoutSection;
}

/// Where all sections of the heads are round, so are the pieces.
void chooseShape(Study &study, const FoundStudy &found)
{
    const bool anyRound = std::any_of(found.files.begin(), found.files.end(), [](const ImportFile &file) {
        if (!file.text || !file.found)
            return false;
        const std::optional<Section> section = sectionOfHeads(headFieldsOf(file.text->utf8, *file.found));
        return section && std::holds_alternative<RoundSection>(*section);
    });
    if (anyRound)
        study.sectionShape = SectionShape::Round;
}

} // namespace

std::optional<Method> testInWords(const std::vector<std::string> &texts)
{
    std::set<Method> meant;
    for (const std::string &text : texts) {
        std::string word;
        const auto look = [&] {
            for (const auto &[known, test] : kTestWords) {
                if (known == word)
                    meant.insert(test);
            }
            word.clear();
        };
        for (const char c : lowered(text)) {
            const bool parts = std::string_view(" _./\\()[]0123456789").find(c) != std::string_view::npos;
            if (parts)
                look();
            else
                word += c;
        }
        look();
    }
    return meant.size() == 1 ? std::optional(*meant.begin()) : std::nullopt;
}

Result<FoundStudy> findStudy(const StudyFromFiles &request)
{
    return StudyFinder(request).find();
}

Result<MadeStudy> makeFoundStudy(OpenProject &project, const FoundStudy &found, const std::string &question)
{
    ProjectFile &file = project.file();
    const Person &person = project.editor().person();
    MadeStudy made;
    std::vector<PieceId> pieces;
    const Status done = file.together([&]() -> Status {
        Result<Study> study = proposedStudy(
            found.proposal, question, found.test, [&] { return file.takeId(); }, pieces);
        if (!study)
            return study.error();
        made.study = study->id;
        if (found.results) {
            const Result<AddedRawFile> kept = file.addRawFile(
                found.resultsPath == "-" ? std::string("standard input") : fileNameOf(found.resultsPath),
                *found.resultsBytes);
            if (!kept)
                return kept.error();
            for (std::size_t i = 0; i < pieces.size(); ++i) {
                const std::size_t row = found.proposal.pieces[i].source;
                GivenRow given = valuesOf(*found.results, found.results->rows[row], made.given.refused);
                if (given.values.empty())
                    continue;
                for (const GivenValue &value : given.values)
                    made.given.taken.push_back(
                        {pieces[i], value,
                         findProperty(*reductionOf(found.test), value.property)->dimension});
                made.given.rows.emplace(pieces[i], std::move(given));
                made.given.places.emplace(pieces[i], row);
            }
            if (const Status taken = takeResults(*study, *found.results, made.given, kept->id, {}); !taken)
                return taken;
        } else {
            chooseShape(*study, found);
        }
        for (std::size_t i = 0; i < pieces.size() && !found.results; ++i) {
            const ImportFile &record = found.files[found.proposal.pieces[i].source];
            const Result<AddedRawFile> kept = file.addRawFile(fileNameOf(record.path), *record.bytes);
            if (!kept)
                return kept.error();
            Piece *piece = findPiece(*study, pieces[i]);
            setRecording(*piece, Recording{kept->id, record.mapping, {}});
            if (const Status head = takeHead(*study, *piece, record); !head)
                return head;
            made.placed.push_back({record.path, record.sha256, piece->code});
        }
        chooseProperty(*study, made.given);
        study->plan.record.push_back(
            {person.now(), person.name,
             found.results ? fmt::format("made from a table of results, {}", fileNameOf(found.resultsPath))
                           : fmt::format("made from {} records", made.placed.size())});
        return project.editor().add(*study);
    });
    return done ? Result<MadeStudy>(std::move(made)) : done.error();
}

} // namespace inchpeg
