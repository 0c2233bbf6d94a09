import ts from 'typescript'

/** What a column is to whoever reads and writes it. */
export interface ColumnShape {
  readonly nullable: boolean
  /** Whether it is given on insert: it has to be, may be left out, or is made by the database alone. */
  readonly insert: 'needed' | 'optional' | 'never'
}

const snakeCase = (name: string) => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)

/** Tables and columns as the types that Kysely is given say them, by their names in the database. */
export function typedTables(): Record<string, Record<string, ColumnShape>> {
  const file = 'server/db/schema/index.ts'
  const { config } = ts.readConfigFile('tsconfig.json', (path) => ts.sys.readFile(path)) as { config: object }
  const { options } = ts.parseJsonConfigFileContent(config, ts.sys, '.')
  const program = ts.createProgram([file], { ...options, types: [] })
  const checker = program.getTypeChecker()
  const source = program.getSourceFile(file)
  const database = source?.statements.find((one) => ts.isInterfaceDeclaration(one) && one.name.text === 'Database')
  if (!source || !database) throw new Error(`${file} has no interface Database.`)
  const partsOf = (type: ts.Type) => (type.isUnion() ? type.types : [type])
  const has = (type: ts.Type, flag: ts.TypeFlags) => partsOf(type).some((part) => (part.flags & flag) !== 0)
  const shapeOf = (column: ts.Symbol): ColumnShape => {
    const type = checker.getTypeOfSymbolAtLocation(column, database)
    const side = (name: string) => {
      const found = type.getProperty(name)
      return found ? checker.getTypeOfSymbolAtLocation(found, database) : type
    }
    const [select, insert] = [side('__select__'), side('__insert__')]
    const isLeftOut = has(insert, ts.TypeFlags.Undefined) || has(insert, ts.TypeFlags.Null)
    return {
      nullable: has(select, ts.TypeFlags.Null),
      insert: has(insert, ts.TypeFlags.Never) ? 'never' : isLeftOut ? 'optional' : 'needed',
    }
  }
  return Object.fromEntries(
    checker
      .getTypeAtLocation(database)
      .getProperties()
      .map((table) => [
        snakeCase(table.name),
        Object.fromEntries(
          checker
            .getTypeOfSymbolAtLocation(table, database)
            .getProperties()
            .map((column) => [snakeCase(column.name), shapeOf(column)]),
        ),
      ]),
  )
}
